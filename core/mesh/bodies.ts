/** The bodies that brushes are proved on, made by formula at any density. */
import { boxCoordinates, boxLattice } from './lattice';
import type { RawMesh } from './mesh';

export const BODIES = ['ball', 'tile', 'bollard', 'plank', 'buoy', 'stone'] as const;
export type BodyName = (typeof BODIES)[number];

export const BODY_LABELS: Record<BodyName, string> = {
  ball: 'Plain ball',
  tile: 'Plain tile',
  bollard: 'Bollard',
  plank: 'Crate plank',
  buoy: 'Buoy',
  stone: 'Harbour stone',
};

/** Cells along an edge: from 25 thousand vertices for a quick look to over half a million. */
export const BODY_DENSITIES = [64, 150, 300] as const;
export type BodyDensity = (typeof BODY_DENSITIES)[number];

type Cells = readonly [number, number, number];

/** Cells of the lattice that a body is made of. */
function cellsOf(name: BodyName, density: number): Cells {
  switch (name) {
    case 'tile':
      return tileCells(density);
    case 'plank':
      return plankCells(density);
    case 'ball':
    case 'bollard':
    case 'buoy':
    case 'stone':
      return [density, density, density];
  }
}

/** The body with texture coordinates: six islands, in proportion to its sides, with seams along its edges. */
export function paintableBody(name: BodyName, density: number): RawMesh {
  return {
    ...body(name, density),
    carried: { coordinates: boxCoordinates(...cellsOf(name, density)), groups: null },
  };
}

/** `density` cells along an edge of the lattice: about 6 density² vertices. */
export function body(name: BodyName, density: number): RawMesh {
  switch (name) {
    case 'ball':
      return ball(density);
    case 'tile':
      return tile(density);
    case 'bollard':
      return bollard(density);
    case 'plank':
      return plank(density);
    case 'buoy':
      return buoy(density);
    case 'stone':
      return stone(density);
  }
}

/** A ball of radius 1. The lattice is spread by equal angles, so that its cells differ little in size. */
export function ball(density: number): RawMesh {
  return boxLattice(density, density, density, onSphere);
}

/** A slab-like block of 2 × 2 × 0.3 with a soft edge, facing +z. */
export function tile(density: number): RawMesh {
  return block(tileCells(density), [1, 1, 0.15], 0.05);
}

function tileCells(density: number): Cells {
  const wide = Math.round(density * 1.66);
  return [wide, wide, Math.max(4, Math.round(wide * 0.09))];
}

/** A plank of a crate, 1.9 × 0.7 × 0.5, with edges that are nearly sharp. */
export function plank(density: number): RawMesh {
  return block(plankCells(density), [0.95, 0.35, 0.25], 0.012);
}

function plankCells(density: number): Cells {
  const long = density * 2;
  return [long, Math.round(long * 0.37), Math.round(long * 0.26)];
}

/** A block with rounded edges, `half` its sides. */
function block([a, b, c]: Cells, half: readonly [number, number, number], round: number): RawMesh {
  return boxLattice(a, b, c, (x, y, z) => {
    const point = [x * half[0], y * half[1], z * half[2]] as const;
    const inner = point.map((c, k) => Math.max(-half[k] + round, Math.min(half[k] - round, c)));
    const out = point.map((c, k) => c - inner[k]);
    const length = Math.hypot(out[0], out[1], out[2]);
    if (length === 0) return point;
    return [
      inner[0] + (out[0] / length) * round,
      inner[1] + (out[1] / length) * round,
      inner[2] + (out[2] / length) * round,
    ];
  });
}

/** Height and radius along a mooring bollard's outline, from the middle of its foot to the top of its head. */
const BOLLARD_OUTLINE: readonly (readonly [number, number])[] = [
  [-1.0, 0],
  [-1.0, 0.35],
  [-1.0, 0.66],
  [-0.97, 0.74],
  [-0.9, 0.76],
  [-0.83, 0.72],
  [-0.76, 0.56],
  [-0.6, 0.47],
  [-0.3, 0.43],
  [0.0, 0.42],
  [0.2, 0.44],
  [0.33, 0.52],
  [0.42, 0.66],
  [0.52, 0.74],
  [0.63, 0.75],
  [0.74, 0.69],
  [0.84, 0.52],
  [0.9, 0.3],
  [0.92, 0],
];

/** A turned mooring post 1.9 high, standing on y = −1. */
export function bollard(density: number): RawMesh {
  return turned(density, BOLLARD_OUTLINE);
}

/** A float with a waist for its rope and a neck above. */
const BUOY_OUTLINE: readonly (readonly [number, number])[] = [
  [-1, 0],
  [-0.98, 0.22],
  [-0.88, 0.42],
  [-0.68, 0.6],
  [-0.42, 0.7],
  [-0.16, 0.68],
  [-0.06, 0.6],
  [0.0, 0.58],
  [0.06, 0.6],
  [0.2, 0.62],
  [0.42, 0.52],
  [0.6, 0.34],
  [0.7, 0.22],
  [0.82, 0.18],
  [0.92, 0.22],
  [0.98, 0.18],
  [1.0, 0],
];

/** A buoy 2 high. */
export function buoy(density: number): RawMesh {
  return turned(density, BUOY_OUTLINE);
}

/** A weathered stone: a ball pressed flat on some sides and worn in slow waves. */
export function stone(density: number): RawMesh {
  const sides = [
    [0.5, 0.4, 0.77, 0.72],
    [-0.7, 0.2, 0.68, 0.78],
    [0.1, -0.95, 0.28, 0.6],
    [-0.3, 0.9, -0.3, 0.7],
    [0.9, -0.1, -0.42, 0.8],
    [-0.2, -0.3, -0.93, 0.75],
  ] as const;
  return boxLattice(density, density, density, (x, y, z) => {
    const [a, b, c] = onSphere(x, y, z);
    let reach = 1;
    for (const [nx, ny, nz, away] of sides) {
      const facing = a * nx + b * ny + c * nz;
      // A soft least of the ball and each flat side.
      if (facing > 0) reach = softLeast(reach, away / facing);
    }
    reach *=
      1 +
      0.02 * Math.sin(3 * a + 5 * b + 1) * Math.sin(4 * c - 2 * a) +
      0.008 * Math.sin(11 * a + 3 * c) * Math.sin(9 * b + 7 * c);
    return [a * reach, b * reach, c * reach];
  });
}

function softLeast(a: number, b: number): number {
  const k = 0.06;
  const h = Math.max(0, Math.min(1, 0.5 + (b - a) / (2 * k)));
  return b + (a - b) * h - k * h * (1 - h);
}

/** Height and radius of an outline, turned about y. */
function turned(density: number, points: readonly (readonly [number, number])[]): RawMesh {
  const outline = byLength(points);
  return boxLattice(density, density, density, (x, y, z) => {
    const [dx, dy, dz] = onSphere(x, y, z);
    const flat = Math.hypot(dx, dz);
    const [height, radius] = outline(Math.acos(Math.max(-1, Math.min(1, -dy))) / Math.PI);
    return flat < 1e-9 ? [0, height, 0] : [(dx / flat) * radius, height, (dz / flat) * radius];
  });
}

function onSphere(x: number, y: number, z: number): readonly [number, number, number] {
  const a = Math.tan((x * Math.PI) / 4);
  const b = Math.tan((y * Math.PI) / 4);
  const c = Math.tan((z * Math.PI) / 4);
  const length = Math.hypot(a, b, c);
  return [a / length, b / length, c / length];
}

/** A smooth (Catmull–Rom) curve through the points, read by its share of length. */
function byLength(points: readonly (readonly [number, number])[]): (share: number) => readonly [number, number] {
  const fine: [number, number][] = [];
  const steps = 24;
  for (let i = 0; i + 1 < points.length; i++) {
    const p0 = points[Math.max(i - 1, 0)];
    const p1 = points[i];
    const p2 = points[i + 1];
    const p3 = points[Math.min(i + 2, points.length - 1)];
    for (let s = 0; s < steps; s++) {
      const t = s / steps;
      const at = (k: 0 | 1): number =>
        0.5 *
        (2 * p1[k] +
          (p2[k] - p0[k]) * t +
          (2 * p0[k] - 5 * p1[k] + 4 * p2[k] - p3[k]) * t * t +
          (3 * p1[k] - p0[k] - 3 * p2[k] + p3[k]) * t * t * t);
      fine.push([at(0), Math.max(0, at(1))]);
    }
  }
  fine.push([...points[points.length - 1]] as [number, number]);
  const along = [0];
  for (let i = 1; i < fine.length; i++)
    along.push(along[i - 1] + Math.hypot(fine[i][0] - fine[i - 1][0], fine[i][1] - fine[i - 1][1]));
  const total = along[along.length - 1];
  return (share) => {
    const target = Math.max(0, Math.min(1, share)) * total;
    let low = 0;
    let high = along.length - 1;
    while (high - low > 1) {
      const mid = (low + high) >> 1;
      if (along[mid] <= target) low = mid;
      else high = mid;
    }
    const t = (target - along[low]) / Math.max(1e-12, along[high] - along[low]);
    return [fine[low][0] + (fine[high][0] - fine[low][0]) * t, fine[low][1] + (fine[high][1] - fine[low][1]) * t];
  };
}
