/** Changes of a picture's outline: crop, flip, turn, repeat, pad. Beyond the picture lies `ground`. */
import { newPicture, type Picture } from '#core/picture';

/** Whether it goes across, from side to side, down, from top to bottom, or both. */
export interface Sides {
  across: boolean;
  down: boolean;
}

/** In whole pixels; it may reach beyond the picture. */
export interface Window {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** What reaches beyond the picture is `ground`. */
export function crop(from: Picture, { left, top, width, height }: Window, ground = 0): Picture {
  const out = newPicture(width, height, ground);
  const i0 = Math.max(0, left);
  const i1 = Math.min(from.width, left + width);
  for (let j = Math.max(0, top); j < Math.min(from.height, top + height); j++) {
    if (i1 > i0)
      out.data.set(from.data.subarray(j * from.width + i0, j * from.width + i1), (j - top) * width + i0 - left);
  }
  return out;
}

export function flip(from: Picture, { across, down }: Sides): Picture {
  const { width, height, data } = from;
  const out = newPicture(width, height);
  for (let j = 0; j < height; j++) {
    const row = (down ? height - 1 - j : j) * width;
    for (let i = 0; i < width; i++) out.data[j * width + i] = data[row + (across ? width - 1 - i : i)];
  }
  return out;
}

/**
 * Turns about the middle, anticlockwise as seen, scaled, into the same size; Catmull–Rom between pixels, which keeps
 * fine grain.
 */
export function turned(
  from: Picture,
  turnRad: number,
  ground: number,
  scale = 1,
  size: { width: number; height: number } = from,
): Picture {
  if (Math.abs(turnRad) < 1e-9 && scale === 1 && size.width === from.width && size.height === from.height) return from;
  const out = newPicture(size.width, size.height);
  const c = Math.cos(turnRad) / scale;
  const s = Math.sin(turnRad) / scale;
  for (let j = 0; j < size.height; j++) {
    const y = j + 0.5 - size.height / 2;
    for (let i = 0; i < size.width; i++) {
      const x = i + 0.5 - size.width / 2;
      out.data[j * size.width + i] = cubicAt(
        from,
        x * c - y * s + from.width / 2 - 0.5,
        x * s + y * c + from.height / 2 - 0.5,
        ground,
      );
    }
  }
  return out;
}

/** Catmull–Rom between pixels; x and y in pixels, whole at their middles. */
export function cubicAt(from: Picture, x: number, y: number, ground: number): number {
  const { width, height, data } = from;
  const i = Math.floor(x);
  const j = Math.floor(y);
  if (i < -1 || j < -1 || i > width - 1 || j > height - 1) return ground;
  const u = weights(x - i);
  const v = weights(y - j);
  let sum = 0;
  for (let b = 0; b < 4; b++) {
    const row = j + b - 1;
    let line = 0;
    for (let a = 0; a < 4; a++) {
      const column = i + a - 1;
      line += (row < 0 || column < 0 || row >= height || column >= width ? ground : data[row * width + column]) * u[a];
    }
    sum += line * v[b];
  }
  return sum;
}

function weights(t: number): [number, number, number, number] {
  return [
    ((-0.5 * t + 1) * t - 0.5) * t,
    (1.5 * t - 2.5) * t * t + 1,
    ((-1.5 * t + 2) * t + 0.5) * t,
    (0.5 * t - 0.5) * t * t,
  ];
}

/** Beside and under each other, each copy whole. */
export function repeat(from: Picture, columns: number, rows: number): Picture {
  const width = from.width * columns;
  const out = newPicture(width, from.height * rows);
  for (let j = 0; j < out.height; j++) {
    const row = from.data.subarray((j % from.height) * from.width, ((j % from.height) + 1) * from.width);
    for (let c = 0; c < columns; c++) out.data.set(row, j * width + c * from.width);
  }
  return out;
}
