/** A picture that may be no square lies in the middle of one. */
export interface Shape {
  width: number;
  height: number;
}

/** Place on the square, 0–1, of a place that is 0–1 of the picture's width and height. */
export function onSquare({ width, height }: Shape, u: number, v: number): [number, number] {
  const longer = Math.max(width, height);
  return [0.5 + ((u - 0.5) * width) / longer, 0.5 + ((v - 0.5) * height) / longer];
}

/** Of a place on the square: 0–1 of width and height, and shares of the longer side from the upper left corner. */
export function onPicture(
  { width, height }: Shape,
  x: number,
  y: number,
): { own: [number, number]; long: [number, number] } {
  const longer = Math.max(width, height);
  const [u, v] = [0.5 + ((x - 0.5) * longer) / width, 0.5 + ((y - 0.5) * longer) / height];
  return { own: [u, v], long: [(u * width) / longer, (v * height) / longer] };
}
