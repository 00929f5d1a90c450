// Twins of core/filter/resize.ts. `first` are int32, `weights` float32, `count` of them for each target sample.

// `width` is a multiple of four.
export function resizeDown(from: usize, to: usize, width: i32, height: i32, target: i32, first: usize, count: i32, weights: usize): void {
  const wide = <usize>width << 2;
  for (let j = 0; j < target; j++) {
    const out = to + <usize>j * wide;
    memory.fill(out, 0, wide);
    const start = load<i32>(first + (<usize>j << 2));
    for (let k = 0; k < count; k++) {
      const w = load<f32>(weights + (<usize>(j * count + k) << 2));
      if (w === 0) continue;
      const row = from + <usize>max(0, min(height - 1, start + k)) * wide;
      const ws = f32x4.splat(w);
      for (let i: usize = 0; i < wide; i += 16) v128.store(out + i, f32x4.add(v128.load(out + i), f32x4.mul(v128.load(row + i), ws)));
    }
  }
}

// `count` is a multiple of four; `row` has room for width + 2 × pad floats, and `first` are counted from its start.
export function resizeAcross(from: usize, to: usize, width: i32, height: i32, target: i32, first: usize, count: i32, weights: usize, row: usize, pad: i32): void {
  const wide = <usize>width << 2;
  const edge = <usize>pad << 2;
  const taps = <usize>count << 2;
  for (let j = 0; j < height; j++) {
    const at = from + <usize>j * wide;
    memory.copy(row + edge, at, wide);
    const left = load<f32>(at);
    const right = load<f32>(at + wide - 4);
    for (let k: usize = 0; k < edge; k += 4) {
      store<f32>(row + k, left);
      store<f32>(row + edge + wide + k, right);
    }
    const out = to + (<usize>(j * target) << 2);
    for (let i = 0; i < target; i++) {
      const start = row + (<usize>load<i32>(first + (<usize>i << 2)) << 2);
      const w = weights + <usize>i * taps;
      let sum = f32x4.splat(0);
      for (let k: usize = 0; k < taps; k += 16) sum = f32x4.add(sum, f32x4.mul(v128.load(start + k), v128.load(w + k)));
      store<f32>(out + (<usize>i << 2), f32x4.extract_lane(sum, 0) + f32x4.extract_lane(sum, 1) + f32x4.extract_lane(sum, 2) + f32x4.extract_lane(sum, 3));
    }
  }
}
