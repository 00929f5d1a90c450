@inline function within(k: i32, count: i32, repeats: bool): i32 {
  if (k >= 0 && k < count) return k;
  return repeats ? ((k % count) + count) % count : k < 0 ? 0 : count - 1;
}

// Multiplies what is covered by base + gain × grey; `map` takes places in the dab to sides of the picture. Beside a
// picture that doesn't repeat nothing is covered.
export function readFlat(count: i32, us: usize, vs: usize, amount: usize, picture: usize, width: i32, height: i32, map: usize, repeats: bool, gain: f32, base: f32): void {
  const a = load<f32>(map);
  const b = load<f32>(map, 4);
  const c = load<f32>(map, 8);
  const d = load<f32>(map, 12);
  const e = load<f32>(map, 16);
  const f = load<f32>(map, 20);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const u = load<f32>(us + i);
    const v = load<f32>(vs + i);
    let s = a * u + b * v + c;
    let t = d * u + e * v + f;
    if (repeats) {
      s -= floor(s);
      t -= floor(t);
    } else if (s < 0 || s > 1 || t < 0 || t > 1) {
      store<f32>(amount + i, 0);
      continue;
    }
    const x = s * <f32>width - 0.5;
    const y = t * <f32>height - 0.5;
    const column = floor(x);
    const row = floor(y);
    const left = <usize>within(<i32>column, width, repeats) << 2;
    const right = <usize>within(<i32>column + 1, width, repeats) << 2;
    const upper = picture + (<usize>(within(<i32>row, height, repeats) * width) << 2);
    const lower = picture + (<usize>(within(<i32>row + 1, height, repeats) * width) << 2);
    const fx = x - column;
    const top = load<f32>(upper + left) + (load<f32>(upper + right) - load<f32>(upper + left)) * fx;
    const bottom = load<f32>(lower + left) + (load<f32>(lower + right) - load<f32>(lower + left)) * fx;
    store<f32>(amount + i, load<f32>(amount + i) * (base + gain * (top + (bottom - top) * (y - row))));
  }
}
