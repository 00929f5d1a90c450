/**
 * Pictures that a dab reads elsewhere than straight in its own square: repeating in the dab's plane, wrapped round the
 * body, or through a stencil. Each multiplies the dab by base + gain × grey.
 */
import { COPY_NORMALS, LEAF, LEAF_SHIFT } from '#core/mesh';
import type { Picture } from '#core/picture';
import type { StencilRows } from '#core/stroke';
import type { FlatMap, Tones, WrapMap } from '../loops';
import type { Surface } from '../surface';

export function repeat(s: Surface, picture: Picture, map: FlatMap, { gain, base }: Tones): void {
  const { u, v, amount, touchedCount } = s;
  const [a, b, c, d, e, f] = map;
  for (let i = 0; i < touchedCount; i++) {
    const h = repeated(picture, a * u[i] + b * v[i] + c, d * u[i] + e * v[i] + f);
    amount[i] = amount[i] * (base + gain * h);
  }
}

/** Each axis that the surface faces by less than this share of its weight is left out. */
const FAINT = 0.01;

export function wrap(s: Surface, picture: Picture, { side, turnRad }: WrapMap, { gain, base }: Tones): void {
  const { touched, amount, touchedCount, start } = s;
  const { heap } = start;
  const cos = Math.cos(turnRad) / side;
  const sin = Math.sin(turnRad) / side;
  const plane = (x: number, y: number): number => repeated(picture, x * cos + y * sin, x * sin - y * cos);
  for (let i = 0; i < touchedCount; i++) {
    const vertex = touched[i];
    const copy = start.copyAt[vertex >> LEAF_SHIFT] >> 2;
    const local = vertex & (LEAF - 1);
    const p = copy + local * 3;
    const n = copy + COPY_NORMALS + local * 3;
    const [x, y, z] = [heap[p], heap[p + 1], heap[p + 2]];
    const [nx, ny, nz] = [heap[n], heap[n + 1], heap[n + 2]];
    const wx = nx * nx * nx * nx;
    const wy = ny * ny * ny * ny;
    const wz = nz * nz * nz * nz;
    const faint = (wx + wy + wz) * FAINT;
    let sum = 0;
    let weight = 0;
    if (wx > faint) {
      sum += wx * plane(nx > 0 ? -z : z, y);
      weight += wx;
    }
    if (wy > faint) {
      sum += wy * plane(x, ny > 0 ? -z : z);
      weight += wy;
    }
    if (wz > faint) {
      sum += wz * plane(nz > 0 ? x : -x, y);
      weight += wz;
    }
    amount[i] = amount[i] * (base + gain * (weight > 0 ? sum / weight : 0));
  }
}

/** What lies beside the sheet, or behind the eye, is left alone. */
export function stencil(s: Surface, picture: Picture, rows: StencilRows, { gain, base }: Tones): void {
  const { touched, amount, touchedCount, start } = s;
  const { heap } = start;
  for (let i = 0; i < touchedCount; i++) {
    const vertex = touched[i];
    const p = (start.copyAt[vertex >> LEAF_SHIFT] >> 2) + (vertex & (LEAF - 1)) * 3;
    const w = through(rows.w, heap, p);
    const u = through(rows.u, heap, p) / w;
    const v = through(rows.v, heap, p) / w;
    amount[i] =
      w > 0 && Math.abs(u) <= 1 && Math.abs(v) <= 1
        ? amount[i] * (base + gain * sampled(picture, (u + 1) * 0.5, (1 - v) * 0.5))
        : 0;
  }
}

function through(row: StencilRows['u'], heap: Float32Array, p: number): number {
  return row[0] * heap[p] + row[1] * heap[p + 1] + row[2] * heap[p + 2] + row[3];
}

/** Bilinear in a picture that repeats; x and y in sides, y down. */
function repeated(picture: Picture, x: number, y: number): number {
  const { width, height } = picture;
  const px = (x - Math.floor(x)) * width - 0.5;
  const py = (y - Math.floor(y)) * height - 0.5;
  const i = Math.floor(px);
  const j = Math.floor(py);
  return four(
    picture,
    i < 0 ? width - 1 : i,
    i + 1 >= width ? 0 : i + 1,
    j < 0 ? height - 1 : j,
    j + 1 >= height ? 0 : j + 1,
    px - i,
    py - j,
  );
}

/** Bilinear in a picture whose edge goes on. */
function sampled(picture: Picture, x: number, y: number): number {
  const { width, height } = picture;
  const px = Math.min(Math.max(x * width - 0.5, 0), width - 1);
  const py = Math.min(Math.max(y * height - 0.5, 0), height - 1);
  const i = Math.floor(px);
  const j = Math.floor(py);
  return four(picture, i, i + 1 < width ? i + 1 : i, j, j + 1 < height ? j + 1 : j, px - i, py - j);
}

function four(
  { data, width }: Picture,
  left: number,
  right: number,
  upper: number,
  lower: number,
  fx: number,
  fy: number,
): number {
  const a = data[upper * width + left];
  const b = data[upper * width + right];
  const c = data[lower * width + left];
  const d = data[lower * width + right];
  const top = a + (b - a) * fx;
  return top + (c + (d - c) * fx - top) * fy;
}
