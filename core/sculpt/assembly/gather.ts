// Twin of core/sculpt/plain/gather.ts.
import {
  boxesOf, copyAtOf, copyLeavesOf, copyRecordsOf, COPY_BOX, COPY_MASK, COPY_NORMALS, COPY_STRONGEST, f, LEAF, leafBaseOf, leavesOf, maskOf, nodesOf, normalsOf,
  positionsOf, scratchOf, touchedOf, uOf, vertexCountOf, vOf,
} from './surface';

@inline function away(low: usize, high: usize, x: f64): f64 {
  return max<f64>(max<f64>(f(low) - x, 0), x - f(high));
}

export function leavesInSphere(s: usize, x: f64, y: f64, z: f64, radius: f64): u32 {
  const boxes = boxesOf(s);
  const base = leafBaseOf(s);
  const out = leavesOf(s);
  const stack = nodesOf(s);
  const r2 = radius * radius;
  let depth: u32 = 1;
  let count: u32 = 0;
  store<u32>(stack, 1);
  while (depth > 0) {
    depth--;
    const node = load<u32>(stack + (<usize>depth << 2));
    const b = boxes + <usize>node * 24;
    const dx = away(b, b + 12, x);
    const dy = away(b + 4, b + 16, y);
    const dz = away(b + 8, b + 20, z);
    if (!(dx * dx + dy * dy + dz * dz <= r2)) continue;
    if (node >= base) {
      store<u32>(out + (<usize>count << 2), node - base);
      count++;
    } else {
      store<u32>(stack + (<usize>depth << 2), node * 2 + 1);
      store<u32>(stack + (<usize>depth << 2) + 4, node * 2);
      depth += 2;
    }
  }
  return count;
}

// Returns how many are copied after this one.
@inline function keepLeaf(s: usize, leaf: u32, copied: u32, strongest: bool, mask: bool, normals: bool): u32 {
  const slot = copyAtOf(s) + (<usize>leaf << 2);
  if (load<u32>(slot) != 0) return copied;
  const at = <usize>load<u32>(copyRecordsOf(s) + (<usize>copied << 2));
  store<u32>(copyLeavesOf(s) + (<usize>copied << 2), leaf);
  store<u32>(slot, <u32>at);
  const first = leaf * LEAF;
  const own = <usize>min<u32>(LEAF, vertexCountOf(s) - first);
  memory.copy(at, positionsOf(s) + <usize>first * 12, own * 12);
  if (strongest) memory.fill(at + COPY_STRONGEST, 0, 1024);
  if (mask) memory.copy(at + COPY_MASK, maskOf(s) + (<usize>first << 2), own << 2);
  if (normals) memory.copy(at + COPY_NORMALS, normalsOf(s) + <usize>first * 12, own * 12);
  memory.copy(at + COPY_BOX, boxesOf(s) + <usize>(leafBaseOf(s) + leaf) * 24, 24);
  return copied + 1;
}

@inline function splat(q: usize): v128 { return f32x4.splat(<f32>load<f64>(q)); }

/**
 * Four vertices at a time. Leaves must be found before. Answers the count of vertices; the count of leaves copied goes
 * to scratch[15].
 */
export function gather(s: usize, found: u32, copied: u32, radius: f64, deep: f64, square: bool, fromStart: bool, strongest: bool, mask: bool, keepNormals: bool): u32 {
  const q = scratchOf(s);
  const cx = splat(q);
  const cy = splat(q + 8);
  const cz = splat(q + 16);
  const nx = splat(q + 24);
  const ny = splat(q + 32);
  const nz = splat(q + 40);
  const tx = splat(q + 48);
  const ty = splat(q + 56);
  const tz = splat(q + 64);
  const bx = splat(q + 72);
  const by = splat(q + 80);
  const bz = splat(q + 88);
  const inverse = f32x4.splat(<f32>(1.0 / radius));
  const reach = f32x4.splat(<f32>deep);
  const one = f32x4.splat(1);
  const zero = f32x4.splat(0);
  const positions = positionsOf(s);
  const normals = normalsOf(s);
  const leaves = leavesOf(s);
  const copyAt = copyAtOf(s);
  const touched = touchedOf(s);
  const us = uOf(s);
  const vs = vOf(s);
  const vertexCount = vertexCountOf(s);
  let count: usize = 0;
  for (let i: u32 = 0; i < found; i++) {
    const leaf = load<u32>(leaves + (<usize>i << 2));
    const first = leaf * LEAF;
    const end = min<u32>(first + LEAF, vertexCount);
    const copy = <usize>load<u32>(copyAt + (<usize>leaf << 2));
    let p = fromStart && copy != 0 ? copy : positions + <usize>first * 12;
    let n = normals + <usize>first * 12;
    const before = count;
    for (let vertex = first; vertex < end; vertex += 4, p += 48, n += 48) {
      const a = v128.load(p);
      const b = v128.load(p, 16);
      const c = v128.load(p, 32);
      const dx = f32x4.mul(f32x4.sub(v128.shuffle<f32>(v128.shuffle<f32>(a, b, 0, 3, 6, 6), c, 0, 1, 2, 5), cx), inverse);
      const dy = f32x4.mul(f32x4.sub(v128.shuffle<f32>(v128.shuffle<f32>(a, b, 1, 4, 7, 7), c, 0, 1, 2, 6), cy), inverse);
      const dz = f32x4.mul(f32x4.sub(v128.shuffle<f32>(v128.shuffle<f32>(a, b, 2, 5, 5, 5), c, 0, 1, 4, 7), cz), inverse);
      const u = f32x4.add(f32x4.add(f32x4.mul(dx, tx), f32x4.mul(dy, ty)), f32x4.mul(dz, tz));
      const v = f32x4.add(f32x4.add(f32x4.mul(dx, bx), f32x4.mul(dy, by)), f32x4.mul(dz, bz));
      let inside = square
        ? v128.and(f32x4.le(f32x4.abs(u), one), f32x4.le(f32x4.abs(v), one))
        : f32x4.le(f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v)), one);
      if (!v128.any_true(inside)) continue;
      const w = f32x4.add(f32x4.add(f32x4.mul(dx, nx), f32x4.mul(dy, ny)), f32x4.mul(dz, nz));
      const d = v128.load(n);
      const e = v128.load(n, 16);
      const g = v128.load(n, 32);
      const mx = v128.shuffle<f32>(v128.shuffle<f32>(d, e, 0, 3, 6, 6), g, 0, 1, 2, 5);
      const my = v128.shuffle<f32>(v128.shuffle<f32>(d, e, 1, 4, 7, 7), g, 0, 1, 2, 6);
      const mz = v128.shuffle<f32>(v128.shuffle<f32>(d, e, 2, 5, 5, 5), g, 0, 1, 4, 7);
      const facing = f32x4.add(f32x4.add(f32x4.mul(mx, nx), f32x4.mul(my, ny)), f32x4.mul(mz, nz));
      inside = v128.and(inside, v128.and(f32x4.le(f32x4.abs(w), reach), f32x4.gt(facing, zero)));
      let bits = i32x4.bitmask(inside);
      if (end - vertex < 4) bits &= (1 << (end - vertex)) - 1;
      if (bits == 15) {
        v128.store(touched + count, i32x4.add(i32x4.splat(vertex), i32x4(0, 1, 2, 3)));
        v128.store(us + count, u);
        v128.store(vs + count, v);
        count += 16;
        continue;
      }
      if (bits & 1) {
        store<u32>(touched + count, vertex);
        store<f32>(us + count, f32x4.extract_lane(u, 0));
        store<f32>(vs + count, f32x4.extract_lane(v, 0));
        count += 4;
      }
      if (bits & 2) {
        store<u32>(touched + count, vertex + 1);
        store<f32>(us + count, f32x4.extract_lane(u, 1));
        store<f32>(vs + count, f32x4.extract_lane(v, 1));
        count += 4;
      }
      if (bits & 4) {
        store<u32>(touched + count, vertex + 2);
        store<f32>(us + count, f32x4.extract_lane(u, 2));
        store<f32>(vs + count, f32x4.extract_lane(v, 2));
        count += 4;
      }
      if (bits & 8) {
        store<u32>(touched + count, vertex + 3);
        store<f32>(us + count, f32x4.extract_lane(u, 3));
        store<f32>(vs + count, f32x4.extract_lane(v, 3));
        count += 4;
      }
    }
    if (count > before) copied = keepLeaf(s, leaf, copied, strongest, mask, keepNormals);
  }
  store<f64>(q + 120, <f64>copied);
  return <u32>(count >> 2);
}
