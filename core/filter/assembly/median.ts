// Twin of median3 in core/filter/median.ts; four columns at a time. `rows` has room for three rows of width + 8 floats.
export function median3(from: usize, to: usize, width: i32, height: i32, rows: usize): void {
  const wide = <usize>width << 2;
  // Four floats before a row hold the repeated edge, and keep it aligned.
  const low = rows + 16;
  const mid = low + wide + 32;
  const high = mid + wide + 32;
  for (let j = 0; j < height; j++) {
    const up = from + <usize>max(0, j - 1) * wide;
    const at = from + <usize>j * wide;
    const down = from + <usize>min(height - 1, j + 1) * wide;
    for (let i: usize = 0; i < wide; i += 16) {
      const x = v128.load(up + i);
      const y = v128.load(at + i);
      const z = v128.load(down + i);
      const a = f32x4.min(x, y);
      const b = f32x4.max(x, y);
      const c = f32x4.min(b, z);
      v128.store(low + i, f32x4.min(a, c));
      v128.store(mid + i, f32x4.max(a, c));
      v128.store(high + i, f32x4.max(b, z));
    }
    repeat(low, wide);
    repeat(mid, wide);
    repeat(high, wide);
    const out = to + <usize>j * wide;
    for (let i: usize = 0; i < wide; i += 16) {
      const l = f32x4.max(v128.load(low + i - 4), f32x4.max(v128.load(low + i), v128.load(low + i + 4)));
      const h = f32x4.min(v128.load(high + i - 4), f32x4.min(v128.load(high + i), v128.load(high + i + 4)));
      const m = middle(v128.load(mid + i - 4), v128.load(mid + i), v128.load(mid + i + 4));
      v128.store(out + i, middle(l, m, h));
    }
  }
}

@inline function repeat(row: usize, wide: usize): void {
  store<f32>(row - 4, load<f32>(row));
  store<f32>(row + wide, load<f32>(row + wide - 4));
}

@inline function middle(a: v128, b: v128, c: v128): v128 {
  return f32x4.max(f32x4.min(a, b), f32x4.min(f32x4.max(a, b), c));
}
