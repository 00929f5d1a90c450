// Twin of core/sculpt/plain/renew.ts.
import {
  boxesOf, changedOf, copyAtOf, COPY_BOX, isChangedOf, LEAF, LEAF_SHIFT, leafBaseOf, leafMarkOf, leavesOf, listOf, nodesOf, normalsOf, positionsOf,
  RING_BREAK, RING_VERTEX, ringsOf, ringStartsOf, straysOf, strayStartsOf, vertexCountOf, vertexMarkOf,
} from './surface';

// Renews the normal of a vertex; neighbours that `mark` hasn't met yet are marked and listed from `listed` on.
@inline function vertexNormal(positions: usize, normals: usize, starts: usize, rings: usize, vertex: u32, marks: usize, mark: u32, listed: usize, spread: bool): usize {
  const p = v128.load(positions + <usize>vertex * 12);
  const start = starts + (<usize>vertex << 2);
  let k = rings + (<usize>load<u32>(start) << 2);
  const end = rings + (<usize>load<u32>(start + 4) << 2);
  let sum = f32x4.splat(0);
  let a = sum;
  let turned = sum;
  let begun = false;
  for (; k < end; k += 4) {
    const word = load<u32>(k);
    const w = word & RING_VERTEX;
    if (spread) {
      const at = marks + (<usize>w << 2);
      if (load<u32>(at) != mark) {
        store<u32>(at, mark);
        store<u32>(listed, w);
        listed += 4;
      }
    }
    const b = f32x4.sub(v128.load(positions + <usize>w * 12), p);
    const next = v128.shuffle<f32>(b, b, 1, 2, 0, 3);
    // z, x, y of the cross product.
    if (begun && word < RING_BREAK) sum = f32x4.add(sum, f32x4.sub(f32x4.mul(a, next), f32x4.mul(turned, b)));
    begun = true;
    a = b;
    turned = next;
  }
  const x = f32x4.extract_lane(sum, 1);
  const y = f32x4.extract_lane(sum, 2);
  const z = f32x4.extract_lane(sum, 0);
  const length = sqrt<f32>(x * x + y * y + z * z);
  const scale: f32 = length > 0 ? <f32>1 / length : 0;
  const n = normals + <usize>vertex * 12;
  store<f32>(n, x * scale);
  store<f32>(n, y * scale, 4);
  store<f32>(n, z * scale, 8);
  return listed;
}

@inline function fitLeaf(s: usize, leaf: u32): void {
  const positions = positionsOf(s);
  const first = leaf * LEAF;
  const end = positions + <usize>min<u32>(first + LEAF, vertexCountOf(s)) * 12;
  let low = f32x4.splat(Infinity);
  let high = f32x4.splat(-Infinity);
  for (let p = positions + <usize>first * 12; p < end; p += 12) {
    const at = v128.load(p);
    low = f32x4.pmin(low, at);
    high = f32x4.pmax(high, at);
  }
  const starts = strayStartsOf(s) + (<usize>leaf << 2);
  const strays = straysOf(s);
  const stop = strays + (<usize>load<u32>(starts + 4) << 2);
  for (let k = strays + (<usize>load<u32>(starts) << 2); k < stop; k += 4) {
    const at = v128.load(positions + <usize>load<u32>(k) * 12);
    low = f32x4.pmin(low, at);
    high = f32x4.pmax(high, at);
  }
  const copy = <usize>load<u32>(copyAtOf(s) + (<usize>leaf << 2));
  if (copy != 0) {
    low = f32x4.min(low, v128.load(copy + COPY_BOX));
    high = f32x4.max(high, v128.load(copy + COPY_BOX, 12));
  }
  const b = boxesOf(s) + <usize>(leafBaseOf(s) + leaf) * 24;
  v128.store64_lane(b, low, 0);
  v128.store32_lane(b, low, 2, 8);
  v128.store64_lane(b, high, 0, 12);
  v128.store32_lane(b, high, 2, 20);
}

@inline function joinChildren(boxes: usize, node: u32): void {
  const a = boxes + <usize>node * 48;
  const to = boxes + <usize>node * 24;
  for (let k: usize = 0; k < 12; k += 4) {
    store<f32>(to + k, min<f32>(load<f32>(a + k), load<f32>(a + 24 + k)));
    store<f32>(to + 12 + k, max<f32>(load<f32>(a + 12 + k), load<f32>(a + 36 + k)));
  }
}

/** Fits the leaves in the list and what stands above them, level by level. */
export function refit(s: usize, count: u32): void {
  const leaves = leavesOf(s);
  const nodes = nodesOf(s);
  const boxes = boxesOf(s);
  const base = leafBaseOf(s);
  for (let i: u32 = 0; i < count; i++) {
    const leaf = load<u32>(leaves + (<usize>i << 2));
    fitLeaf(s, leaf);
    store<u32>(nodes + (<usize>i << 2), (base + leaf) >> 1);
  }
  let n = count;
  while (n > 0 && load<u32>(nodes) >= 1) {
    let kept: u32 = 0;
    let last: u32 = 0;
    for (let i: u32 = 0; i < n; i++) {
      const node = load<u32>(nodes + (<usize>i << 2));
      if (node == last) continue;
      last = node;
      joinChildren(boxes, node);
      store<u32>(nodes + (<usize>kept << 2), node >> 1);
      kept++;
    }
    n = kept;
  }
}

/** Answers how many leaves are noted for the view. */
export function renew(s: usize, vertices: usize, count: u32, mark: u32, noted: u32): u32 {
  const positions = positionsOf(s);
  const normals = normalsOf(s);
  const starts = ringStartsOf(s);
  const rings = ringsOf(s);
  const marks = vertexMarkOf(s);
  const leafMarks = leafMarkOf(s);
  const leaves = leavesOf(s);
  const list = listOf(s);
  const stop = vertices + (<usize>count << 2);
  for (let i = vertices; i < stop; i += 4) store<u32>(marks + (<usize>load<u32>(i) << 2), mark);
  // Touched vertices first; their neighbours are listed on the way and follow.
  let listed = list;
  for (let i = vertices; i < stop; i += 4) listed = vertexNormal(positions, normals, starts, rings, load<u32>(i), marks, mark, listed, true);
  for (let i = list; i < listed; i += 4) vertexNormal(positions, normals, starts, rings, load<u32>(i), marks, mark, listed, false);

  let leafCount: u32 = 0;
  for (let pass = 0; pass < 2; pass++) {
    const end = pass == 0 ? stop : listed;
    let last: u32 = 0xffffffff;
    for (let i = pass == 0 ? vertices : list; i < end; i += 4) {
      const leaf = load<u32>(i) >> LEAF_SHIFT;
      if (leaf == last) continue;
      last = leaf;
      const at = leafMarks + (<usize>leaf << 2);
      if (load<u32>(at) == mark) continue;
      store<u32>(at, mark);
      store<u32>(leaves + (<usize>leafCount << 2), leaf);
      leafCount++;
    }
  }
  refit(s, leafCount);
  const isChanged = isChangedOf(s);
  const changed = changedOf(s);
  for (let i: u32 = 0; i < leafCount; i++) {
    const leaf = load<u32>(leaves + (<usize>i << 2));
    if (load<u8>(isChanged + leaf) != 0) continue;
    store<u8>(isChanged + leaf, 1);
    store<u32>(changed + (<usize>noted << 2), leaf);
    noted++;
  }
  return noted;
}
