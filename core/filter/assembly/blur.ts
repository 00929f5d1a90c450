// Twins of the box passes in core/filter/blur.ts; widths and heights are multiples of four.

// Three passes along four rows at once: lane k of a word belongs to row k. `rows` has room for two runs of width + 2r + 3 words.
export function blurAcross(data: usize, width: i32, height: i32, r: i32, inner: f32, outer: f32, rows: usize): void {
  const wide = <usize>width << 2;
  const reach = r + 1;
  const length = <usize>(width + 2 * reach + 1) << 4;
  const ins = f32x4.splat(inner);
  const outs = f32x4.splat(outer);
  for (let j = 0; j < height; j += 4) {
    const r0 = data + <usize>j * wide;
    const r1 = r0 + wide;
    const r2 = r1 + wide;
    const r3 = r2 + wide;
    let a = rows;
    let b = rows + length;
    for (let i: usize = 0; i < wide; i += 16) turn(v128.load(r0 + i), v128.load(r1 + i), v128.load(r2 + i), v128.load(r3 + i), a + (<usize>reach << 4) + (i << 2));
    for (let pass = 0; pass < 3; pass++) {
      const first = a + (<usize>reach << 4);
      const last = first + (<usize>(width - 1) << 4);
      const left = v128.load(first);
      const right = v128.load(last);
      for (let k = a; k < first; k += 16) v128.store(k, left);
      for (let k = last + 16; k < a + length; k += 16) v128.store(k, right);
      let narrow = f32x4.splat(0);
      for (let k = 1; k < 2 * r + 2; k++) narrow = f32x4.add(narrow, v128.load(a + (<usize>k << 4)));
      let out = b + (<usize>reach << 4);
      const far = <usize>(2 * r + 2) << 4;
      let at = a;
      for (let i = 0; i < width; i++) {
        const before = v128.load(at);
        const after = v128.load(at + far);
        v128.store(out, f32x4.add(f32x4.mul(narrow, ins), f32x4.mul(f32x4.add(narrow, f32x4.add(before, after)), outs)));
        narrow = f32x4.add(narrow, f32x4.sub(after, v128.load(at, 16)));
        at += 16;
        out += 16;
      }
      const swap = a;
      a = b;
      b = swap;
    }
    for (let i: usize = 0; i < wide; i += 16) {
      const k = a + (<usize>reach << 4) + (i << 2);
      back(v128.load(k), v128.load(k, 16), v128.load(k, 32), v128.load(k, 48), r0 + i, r1 + i, r2 + i, r3 + i);
    }
  }
}

@inline function turn(a: v128, b: v128, c: v128, d: v128, to: usize): void {
  const ab = v128.shuffle<f32>(a, b, 0, 4, 1, 5);
  const cd = v128.shuffle<f32>(c, d, 0, 4, 1, 5);
  const ab2 = v128.shuffle<f32>(a, b, 2, 6, 3, 7);
  const cd2 = v128.shuffle<f32>(c, d, 2, 6, 3, 7);
  v128.store(to, v128.shuffle<f32>(ab, cd, 0, 1, 4, 5));
  v128.store(to, v128.shuffle<f32>(ab, cd, 2, 3, 6, 7), 16);
  v128.store(to, v128.shuffle<f32>(ab2, cd2, 0, 1, 4, 5), 32);
  v128.store(to, v128.shuffle<f32>(ab2, cd2, 2, 3, 6, 7), 48);
}

@inline function back(a: v128, b: v128, c: v128, d: v128, t0: usize, t1: usize, t2: usize, t3: usize): void {
  const ab = v128.shuffle<f32>(a, b, 0, 4, 1, 5);
  const cd = v128.shuffle<f32>(c, d, 0, 4, 1, 5);
  const ab2 = v128.shuffle<f32>(a, b, 2, 6, 3, 7);
  const cd2 = v128.shuffle<f32>(c, d, 2, 6, 3, 7);
  v128.store(t0, v128.shuffle<f32>(ab, cd, 0, 1, 4, 5));
  v128.store(t1, v128.shuffle<f32>(ab, cd, 2, 3, 6, 7));
  v128.store(t2, v128.shuffle<f32>(ab2, cd2, 0, 1, 4, 5));
  v128.store(t3, v128.shuffle<f32>(ab2, cd2, 2, 3, 6, 7));
}

// One pass down all columns; `sums` has room for a row.
export function blurDown(from: usize, to: usize, width: i32, height: i32, r: i32, inner: f32, outer: f32, sums: usize): void {
  const wide = <usize>width << 2;
  const ins = f32x4.splat(inner);
  const outs = f32x4.splat(outer);
  memory.fill(sums, 0, wide);
  for (let k = -r; k <= r; k++) {
    const row = from + <usize>min(height - 1, max(0, k)) * wide;
    for (let i: usize = 0; i < wide; i += 16) v128.store(sums + i, f32x4.add(v128.load(sums + i), v128.load(row + i)));
  }
  for (let j = 0; j < height; j++) {
    const before = from + <usize>max(0, j - r - 1) * wide;
    const leaving = from + <usize>min(height - 1, max(0, j - r)) * wide;
    const after = from + <usize>min(height - 1, j + r + 1) * wide;
    const out = to + <usize>j * wide;
    for (let i: usize = 0; i < wide; i += 16) {
      const n = v128.load(sums + i);
      const next = v128.load(after + i);
      v128.store(out + i, f32x4.add(f32x4.mul(n, ins), f32x4.mul(f32x4.add(n, f32x4.add(v128.load(before + i), next)), outs)));
      v128.store(sums + i, f32x4.add(n, f32x4.sub(next, v128.load(leaving + i))));
    }
  }
}
