/**
 * Pictures as a dab of paint reads them, by the mappings of a dab of clay: straight in its square, repeating in its
 * plane, wrapped round the body, or through a stencil.
 */
import { toLinear } from '#core/colour';
import type { AlphaColours } from '#core/brush';
import type { Picture } from '#core/picture';
import type { StencilRows } from '#core/stroke';
import type { TilePlaces } from './places';
import type { TexelRoom } from './texelRoom';

export type Reading =
  /** `fit` is how far the picture is shrunk into the ring; beyond its square nothing is covered. */
  | { kind: 'flat'; fit: number }
  /** Sides right and down are a·u + b·v + c and d·u + e·v + f of a place in radii. */
  | { kind: 'repeated'; map: readonly [number, number, number, number, number, number] }
  /** `side` in body units. */
  | { kind: 'wrapped'; side: number; turnRad: number }
  /** `side` is that of the sheet where it falls on the body. */
  | { kind: 'stencil'; rows: StencilRows; side: number };

/** Multiplies what is covered by base + gain × grey. */
export function readPicture(
  picture: Picture,
  read: Reading,
  places: TilePlaces,
  out: TexelRoom,
  gain: number,
  base: number,
): void {
  const { count, amount } = out;
  if (read.kind === 'wrapped') {
    for (let i = 0; i < count; i++) amount[i] *= base + gain * wrapped(picture, read, places, out.index[i]);
    return;
  }
  if (read.kind === 'flat' || read.kind === 'repeated') {
    const half = read.kind === 'flat' ? read.fit / 2 : 0;
    const map = read.kind === 'flat' ? [half, 0, 0.5, 0, -half, 0.5] : read.map;
    out.read(picture, map, read.kind === 'repeated', gain, base);
    return;
  }
  const { width, height, data } = picture;
  const at = { s: 0, t: 0 };
  for (let i = 0; i < count; i++) {
    if (!placeIn(read, places, out, i, at)) {
      amount[i] = 0;
      continue;
    }
    const x = at.s * width - 0.5;
    const y = at.t * height - 0.5;
    const column = Math.floor(x);
    const row = Math.floor(y);
    const left = within(column, width, false);
    const right = within(column + 1, width, false);
    const upper = within(row, height, false) * width;
    const lower = within(row + 1, height, false) * width;
    const fx = x - column;
    const top = data[upper + left] + (data[upper + right] - data[upper + left]) * fx;
    const bottom = data[lower + left] + (data[lower + right] - data[lower + left]) * fx;
    amount[i] *= base + gain * (top + (bottom - top) * (y - row));
  }
}

const LINEAR = Float32Array.from({ length: 256 }, (_, i) => toLinear(i / 255));

/** Its own colours where it covers, and as much as it covers. */
export function readColours({ size, rgba }: AlphaColours, read: Reading, places: TilePlaces, out: TexelRoom): void {
  const { count, amount, own } = out;
  const repeats = read.kind === 'repeated' || read.kind === 'wrapped';
  const at = { s: 0, t: 0 };
  for (let i = 0; i < count; i++) {
    if (!placeIn(read, places, out, i, at)) {
      amount[i] = 0;
      continue;
    }
    const x = at.s * size - 0.5;
    const y = at.t * size - 0.5;
    const [column, row] = [Math.floor(x), Math.floor(y)];
    const [fx, fy] = [x - column, y - row];
    let [r, g, b, a] = [0, 0, 0, 0];
    for (let k = 0; k < 4; k++) {
      const from = (within(row + (k >> 1), size, repeats) * size + within(column + (k & 1), size, repeats)) * 4;
      const share = (k & 1 ? fx : 1 - fx) * (k >> 1 ? fy : 1 - fy) * rgba[from + 3];
      r += LINEAR[rgba[from]] * share;
      g += LINEAR[rgba[from + 1]] * share;
      b += LINEAR[rgba[from + 2]] * share;
      a += share;
    }
    const by = a > 0 ? 1 / a : 0;
    own[i * 3] = r * by;
    own[i * 3 + 1] = g * by;
    own[i * 3 + 2] = b * by;
    amount[i] *= a / 255;
  }
}

function within(k: number, count: number, repeats: boolean): number {
  if (k >= 0 && k < count) return k;
  return repeats ? ((k % count) + count) % count : k < 0 ? 0 : count - 1;
}

interface At {
  s: number;
  t: number;
}

/** Right and down in the picture, 0–1; false beside it. */
function placeIn(read: Reading, places: TilePlaces, out: TexelRoom, i: number, at: At): boolean {
  switch (read.kind) {
    case 'flat': {
      const [x, y] = [out.u[i] * read.fit, out.v[i] * read.fit];
      if (x > 1 || x < -1 || y > 1 || y < -1) return false;
      at.s = (x + 1) / 2;
      at.t = (1 - y) / 2;
      return true;
    }
    case 'repeated': {
      const [a, b, c, d, e, f] = read.map;
      const s = a * out.u[i] + b * out.v[i] + c;
      const t = d * out.u[i] + e * out.v[i] + f;
      at.s = s - Math.floor(s);
      at.t = t - Math.floor(t);
      return true;
    }
    case 'wrapped':
      return strongest(read, places, out.index[i], at);
    case 'stencil': {
      const { rows } = read;
      const k = out.index[i];
      const [x, y, z] = [places.x[k], places.y[k], places.z[k]];
      const through = (row: StencilRows['u']): number => row[0] * x + row[1] * y + row[2] * z + row[3];
      const w = through(rows.w);
      const [u, v] = [through(rows.u) / w, through(rows.v) / w];
      if (!(w > 0) || u > 1 || u < -1 || v > 1 || v < -1) return false;
      at.s = (u + 1) / 2;
      at.t = (1 - v) / 2;
      return true;
    }
  }
}

/** Each axis that the surface faces by less than this share of its weight is left out. */
const FAINT = 0.01;

type Wrapped = Extract<Reading, { kind: 'wrapped' }>;

function wrapped(picture: Picture, { side, turnRad }: Wrapped, places: TilePlaces, k: number): number {
  const { count, x, y, z, normals } = places;
  const cos = Math.cos(turnRad) / side;
  const sin = Math.sin(turnRad) / side;
  const plane = (p: number, q: number): number => repeated(picture, p * cos + q * sin, p * sin - q * cos);
  const [nx, ny, nz] = [normals[k], normals[count + k], normals[2 * count + k]];
  const [wx, wy, wz] = [nx ** 4, ny ** 4, nz ** 4];
  const faint = (wx + wy + wz) * FAINT;
  let [sum, weight] = [0, 0];
  if (wx > faint) {
    sum += wx * plane(nx > 0 ? -z[k] : z[k], y[k]);
    weight += wx;
  }
  if (wy > faint) {
    sum += wy * plane(x[k], ny > 0 ? -z[k] : z[k]);
    weight += wy;
  }
  if (wz > faint) {
    sum += wz * plane(nz > 0 ? x[k] : -x[k], y[k]);
    weight += wz;
  }
  return weight > 0 ? sum / weight : 0;
}

/** Colours aren’t blended over axes: the one that the surface faces most is read. */
function strongest({ side, turnRad }: Wrapped, { count, x, y, z, normals }: TilePlaces, k: number, at: At): boolean {
  const [nx, ny, nz] = [normals[k], normals[count + k], normals[2 * count + k]];
  const [ax, ay, az] = [Math.abs(nx), Math.abs(ny), Math.abs(nz)];
  const [p, q] =
    ax >= ay && ax >= az
      ? [nx > 0 ? -z[k] : z[k], y[k]]
      : ay >= az
        ? [x[k], ny > 0 ? -z[k] : z[k]]
        : [nz > 0 ? x[k] : -x[k], y[k]];
  const cos = Math.cos(turnRad) / side;
  const sin = Math.sin(turnRad) / side;
  const [s, t] = [p * cos + q * sin, p * sin - q * cos];
  at.s = s - Math.floor(s);
  at.t = t - Math.floor(t);
  return true;
}

function repeated({ width, height, data }: Picture, s: number, t: number): number {
  const x = (s - Math.floor(s)) * width - 0.5;
  const y = (t - Math.floor(t)) * height - 0.5;
  const [column, row] = [Math.floor(x), Math.floor(y)];
  const left = within(column, width, true);
  const right = within(column + 1, width, true);
  const upper = within(row, height, true) * width;
  const lower = within(row + 1, height, true) * width;
  const fx = x - column;
  const top = data[upper + left] + (data[upper + right] - data[upper + left]) * fx;
  const bottom = data[lower + left] + (data[lower + right] - data[lower + left]) * fx;
  return top + (bottom - top) * (y - row);
}
