// Twins of core/sculpt/plain/actions.ts.
import {
  amountOf, copyAtOf, COPY_MASK, COPY_NORMALS, COPY_STRONGEST, f, LEAF, LEAF_SHIFT, maskOf, normalsOf, positionsOf, put, RING_BREAK, RING_VERTEX, ringsOf, ringStartsOf,
  scratchOf, touchedOf, uOf, vOf,
} from './surface';

@inline function add(p: usize, x: f64, y: f64, z: f64): void {
  put(p, f(p) + x);
  put(p + 4, f(p + 4) + y);
  put(p + 8, f(p + 8) + z);
}

export function push(s: usize, count: u32, nx: f64, ny: f64, nz: f64, scale: f64, even: bool): void {
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const positions = positionsOf(s);
  const copyAt = copyAtOf(s);
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const vertex = load<u32>(touched + at);
    const amount = scale * f(amounts + at);
    const p = positions + <usize>vertex * 12;
    if (!even) {
      add(p, nx * amount, ny * amount, nz * amount);
      continue;
    }
    const copy = <usize>load<u32>(copyAt + (<usize>(vertex >> LEAF_SHIFT) << 2));
    const local = <usize>(vertex & (LEAF - 1));
    const strongest = copy + COPY_STRONGEST + (local << 2);
    if (abs<f64>(amount) <= abs<f64>(f(strongest))) continue;
    put(strongest, amount);
    const from = copy + local * 12;
    put(p, f(from) + nx * amount);
    put(p + 4, f(from + 4) + ny * amount);
    put(p + 8, f(from + 8) + nz * amount);
  }
}

export function pushOut(s: usize, count: u32, scale: f64, even: bool): void {
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const positions = positionsOf(s);
  const copyAt = copyAtOf(s);
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const vertex = load<u32>(touched + at);
    const amount = scale * f(amounts + at);
    const p = positions + <usize>vertex * 12;
    const copy = <usize>load<u32>(copyAt + (<usize>(vertex >> LEAF_SHIFT) << 2));
    const local = <usize>(vertex & (LEAF - 1));
    const from = copy + local * 12;
    const n = from + COPY_NORMALS;
    if (!even) {
      add(p, f(n) * amount, f(n + 4) * amount, f(n + 8) * amount);
      continue;
    }
    const strongest = copy + COPY_STRONGEST + (local << 2);
    if (abs<f64>(amount) <= abs<f64>(f(strongest))) continue;
    put(strongest, amount);
    put(p, f(from) + f(n) * amount);
    put(p + 4, f(from + 4) + f(n + 4) * amount);
    put(p + 8, f(from + 8) + f(n + 8) * amount);
  }
}

export function inflate(s: usize, count: u32, scale: f64): void {
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const positions = positionsOf(s);
  const normals = normalsOf(s);
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const vertex = <usize>load<u32>(touched + at) * 12;
    const amount = scale * f(amounts + at);
    const n = normals + vertex;
    add(positions + vertex, f(n) * amount, f(n + 4) * amount, f(n + 8) * amount);
  }
}

export function crease(s: usize, count: u32, scale: f64, together: f64): void {
  const q = scratchOf(s);
  const nx = load<f64>(q + 24);
  const ny = load<f64>(q + 32);
  const nz = load<f64>(q + 40);
  const bx = load<f64>(q + 72);
  const by = load<f64>(q + 80);
  const bz = load<f64>(q + 88);
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const vs = vOf(s);
  const positions = positionsOf(s);
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const amount = f(amounts + at);
    const down = scale * amount;
    const across = together * f(vs + at) * amount;
    add(positions + <usize>load<u32>(touched + at) * 12, nx * down + bx * across, ny * down + by * across, nz * down + bz * across);
  }
}

export function meanHeight(s: usize, count: u32): f64 {
  const q = scratchOf(s);
  const cx = load<f64>(q);
  const cy = load<f64>(q + 8);
  const cz = load<f64>(q + 16);
  const nx = load<f64>(q + 24);
  const ny = load<f64>(q + 32);
  const nz = load<f64>(q + 40);
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const positions = positionsOf(s);
  let sum = 0.0;
  let weight = 0.0;
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const p = positions + <usize>load<u32>(touched + at) * 12;
    const amount = f(amounts + at);
    sum += ((f(p) - cx) * nx + (f(p + 4) - cy) * ny + (f(p + 8) - cz) * nz) * amount;
    weight += amount;
  }
  return weight > 0 ? sum / weight : 0.0;
}

export function level(s: usize, count: u32, to: f64, share: f64, most: f64, from: i32): void {
  const q = scratchOf(s);
  const cx = load<f64>(q);
  const cy = load<f64>(q + 8);
  const cz = load<f64>(q + 16);
  const nx = load<f64>(q + 24);
  const ny = load<f64>(q + 32);
  const nz = load<f64>(q + 40);
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const positions = positionsOf(s);
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const p = positions + <usize>load<u32>(touched + at) * 12;
    let by = to - ((f(p) - cx) * nx + (f(p + 4) - cy) * ny + (f(p + 8) - cz) * nz);
    by = (from < 0 && by < 0) || (from > 0 && by > 0) ? 0.0 : by > most ? most : by < -most ? -most : by;
    put(amounts + at, by * f(amounts + at) * share);
  }
}

export function carry(s: usize, count: u32, x: f64, y: f64, z: f64, share: f64): void {
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const positions = positionsOf(s);
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const w = f(amounts + at) * share;
    add(positions + <usize>load<u32>(touched + at) * 12, x * w, y * w, z * w);
  }
}

/** The displacement of each vertex goes to `displacements`, three floats a vertex. */
export function relax(s: usize, count: u32, share: f64, displacements: usize): void {
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const positions = positionsOf(s);
  const starts = ringStartsOf(s);
  const rings = ringsOf(s);
  for (let i: u32 = 0; i < count; i++) {
    const vertex = load<u32>(touched + (<usize>i << 2));
    const first = load<u32>(starts + (<usize>vertex << 2));
    const last = load<u32>(starts + (<usize>vertex << 2) + 4) - 1;
    const p = positions + <usize>vertex * 12;
    let x = 0.0;
    let y = 0.0;
    let z = 0.0;
    let whole = last > first && load<u32>(rings + (<usize>first << 2)) == load<u32>(rings + (<usize>last << 2));
    for (let k = first; k < last; k++) {
      const word = load<u32>(rings + (<usize>k << 2));
      if (word >= RING_BREAK) whole = false;
      const b = positions + <usize>(word & RING_VERTEX) * 12;
      x += f(b);
      y += f(b + 4);
      z += f(b + 8);
    }
    const n = <f64>(last - first);
    const pull = whole ? share * f(amounts + (<usize>i << 2)) / n : 0.0;
    const out = displacements + <usize>i * 12;
    put(out, (x - n * f(p)) * pull);
    put(out + 4, (y - n * f(p + 4)) * pull);
    put(out + 8, (z - n * f(p + 8)) * pull);
  }
}

export function shift(s: usize, count: u32, displacements: usize): void {
  const touched = touchedOf(s);
  const positions = positionsOf(s);
  for (let i: u32 = 0; i < count; i++) {
    const at = displacements + <usize>i * 12;
    add(positions + <usize>load<u32>(touched + (<usize>i << 2)) * 12, f(at), f(at + 4), f(at + 8));
  }
}

export function paintMask(s: usize, count: u32, scale: f64, even: bool): void {
  const touched = touchedOf(s);
  const amounts = amountOf(s);
  const mask = maskOf(s);
  const copyAt = copyAtOf(s);
  for (let at: usize = 0, end = <usize>count << 2; at < end; at += 4) {
    const vertex = load<u32>(touched + at);
    const amount = scale * f(amounts + at);
    const m = mask + (<usize>vertex << 2);
    let from = f(m);
    if (even) {
      const copy = <usize>load<u32>(copyAt + (<usize>(vertex >> LEAF_SHIFT) << 2));
      const local = <usize>(vertex & (LEAF - 1)) << 2;
      const strongest = copy + COPY_STRONGEST + local;
      if (abs<f64>(amount) <= abs<f64>(f(strongest))) continue;
      put(strongest, amount);
      from = f(copy + COPY_MASK + local);
    }
    const to = from + amount;
    put(m, to > 1 ? 1.0 : to < 0 ? 0.0 : to);
  }
}
