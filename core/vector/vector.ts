/** Directions and places of three numbers, for what is worked out once: loops over a mesh keep to flat arrays. */
export type Vec3 = readonly [number, number, number];

export function dot(a: Vec3, b: Vec3): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

export function cross(a: Vec3, b: Vec3): Vec3 {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

export function plus(a: Vec3, b: Vec3): Vec3 {
  return [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
}

export function minus(a: Vec3, b: Vec3): Vec3 {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
}

export function scaled(v: Vec3, by: number): Vec3 {
  return [v[0] * by, v[1] * by, v[2] * by];
}

export function length(v: Vec3): number {
  return Math.hypot(...v);
}

/** Throws when it has no length. */
export function unit(v: Vec3): Vec3 {
  const size = length(v);
  if (!(size > 0)) throw new Error('A direction without length has no frame.');
  return [v[0] / size, v[1] / size, v[2] / size];
}

/** About a unit axis, anticlockwise as seen against it. */
export function rotated(v: Vec3, axis: Vec3, turnRad: number): Vec3 {
  const [c, s] = [Math.cos(turnRad), Math.sin(turnRad)];
  const along = dot(v, axis) * (1 - c);
  const side = cross(axis, v);
  return [
    v[0] * c + side[0] * s + axis[0] * along,
    v[1] * c + side[1] * s + axis[1] * along,
    v[2] * c + side[2] * s + axis[2] * along,
  ];
}
