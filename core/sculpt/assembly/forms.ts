// Twins of core/sculpt/plain/forms.ts. Their maps lie in scratch[16 …].
import { amountOf, copyAtOf, COPY_NORMALS, f, LEAF, LEAF_SHIFT, put, scratchOf, touchedOf, uOf, vOf } from './surface';

@inline function copyOf(copyAt: usize, vertex: u32): usize { return <usize>load<u32>(copyAt + (<usize>(vertex >> LEAF_SHIFT) << 2)); }

@inline function four(picture: usize, width: i32, left: i32, right: i32, upper: i32, lower: i32, fx: f64, fy: f64): f64 {
  const top = picture + (<usize>(upper * width) << 2);
  const bottom = picture + (<usize>(lower * width) << 2);
  const a = f(top + (<usize>left << 2));
  const b = f(top + (<usize>right << 2));
  const c = f(bottom + (<usize>left << 2));
  const d = f(bottom + (<usize>right << 2));
  const first = a + (b - a) * fx;
  return first + (c + (d - c) * fx - first) * fy;
}

@inline function repeated(picture: usize, width: i32, height: i32, x: f64, y: f64): f64 {
  const px = (x - floor<f64>(x)) * <f64>width - 0.5;
  const py = (y - floor<f64>(y)) * <f64>height - 0.5;
  const i = floor<f64>(px);
  const j = floor<f64>(py);
  const left = <i32>i;
  const upper = <i32>j;
  return four(
    picture, width, left < 0 ? width - 1 : left, left + 1 >= width ? 0 : left + 1, upper < 0 ? height - 1 : upper, upper + 1 >= height ? 0 : upper + 1,
    px - i, py - j,
  );
}

export function repeat(s: usize, count: u32, picture: usize, width: i32, height: i32, gain: f64, base: f64): void {
  const q = scratchOf(s) + 128;
  const a = load<f64>(q);
  const b = load<f64>(q, 8);
  const c = load<f64>(q, 16);
  const d = load<f64>(q, 24);
  const e = load<f64>(q, 32);
  const g = load<f64>(q, 40);
  const us = uOf(s);
  const vs = vOf(s);
  const amounts = amountOf(s);
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const u = f(us + at);
    const v = f(vs + at);
    const h = repeated(picture, width, height, a * u + b * v + c, d * u + e * v + g);
    put(amounts + at, f(amounts + at) * (base + gain * h));
  }
}

export function wrap(s: usize, count: u32, picture: usize, width: i32, height: i32, cos: f64, sin: f64, gain: f64, base: f64): void {
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const copyAt = copyAtOf(s);
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const vertex = load<u32>(touched + at);
    const p = copyOf(copyAt, vertex) + <usize>(vertex & (LEAF - 1)) * 12;
    const x = f(p);
    const y = f(p + 4);
    const z = f(p + 8);
    const nx = f(p + COPY_NORMALS);
    const ny = f(p + COPY_NORMALS + 4);
    const nz = f(p + COPY_NORMALS + 8);
    const wx = nx * nx * nx * nx;
    const wy = ny * ny * ny * ny;
    const wz = nz * nz * nz * nz;
    const faint = (wx + wy + wz) * 0.01;
    let sum = 0.0;
    let weight = 0.0;
    if (wx > faint) {
      const a = nx > 0 ? -z : z;
      sum += wx * repeated(picture, width, height, a * cos + y * sin, a * sin - y * cos);
      weight += wx;
    }
    if (wy > faint) {
      const b = ny > 0 ? -z : z;
      sum += wy * repeated(picture, width, height, x * cos + b * sin, x * sin - b * cos);
      weight += wy;
    }
    if (wz > faint) {
      const a = nz > 0 ? x : -x;
      sum += wz * repeated(picture, width, height, a * cos + y * sin, a * sin - y * cos);
      weight += wz;
    }
    put(amounts + at, f(amounts + at) * (base + gain * (weight > 0 ? sum / weight : 0.0)));
  }
}

@inline function through(q: usize, x: f64, y: f64, z: f64): f64 { return load<f64>(q) * x + load<f64>(q, 8) * y + load<f64>(q, 16) * z + load<f64>(q, 24); }

export function stencil(s: usize, count: u32, picture: usize, width: i32, height: i32, gain: f64, base: f64): void {
  const q = scratchOf(s) + 128;
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const copyAt = copyAtOf(s);
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const vertex = load<u32>(touched + at);
    const p = copyOf(copyAt, vertex) + <usize>(vertex & (LEAF - 1)) * 12;
    const x = f(p);
    const y = f(p + 4);
    const z = f(p + 8);
    const w = through(q + 64, x, y, z);
    const u = through(q, x, y, z) / w;
    const v = through(q + 32, x, y, z) / w;
    if (!(w > 0 && abs<f64>(u) <= 1 && abs<f64>(v) <= 1)) {
      put(amounts + at, 0);
      continue;
    }
    const px = min<f64>(max<f64>((u + 1) * 0.5 * <f64>width - 0.5, 0), <f64>(width - 1));
    const py = min<f64>(max<f64>((1 - v) * 0.5 * <f64>height - 0.5, 0), <f64>(height - 1));
    const i = floor<f64>(px);
    const j = floor<f64>(py);
    const left = <i32>i;
    const upper = <i32>j;
    const h = four(picture, width, left, left + 1 < width ? left + 1 : left, upper, upper + 1 < height ? upper + 1 : upper, px - i, py - j);
    put(amounts + at, f(amounts + at) * (base + gain * h));
  }
}
