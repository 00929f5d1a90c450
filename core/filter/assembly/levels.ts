// Twin of levels in core/filter/tone.ts. `table` 0 is none; else it has `last` + 2 floats for v from 0 to 1.
export function levels(from: usize, to: usize, count: u32, black: f32, scale: f32, table: usize, last: f32): void {
  const low = f32x4.splat(black);
  const gain = f32x4.splat(scale);
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const end = from + (<usize>count << 2);
  while (from < end) {
    const v = f32x4.max(zero, f32x4.min(one, f32x4.mul(f32x4.sub(v128.load(from), low), gain)));
    if (table === 0) v128.store(to, v);
    else {
      const at = f32x4.mul(v, f32x4.splat(last));
      const whole = i32x4.trunc_sat_f32x4_s(at);
      const share = f32x4.sub(at, f32x4.convert_i32x4_s(whole));
      for (let k: usize = 0; k < 4; k++) {
        const i = k === 0 ? i32x4.extract_lane(whole, 0) : k === 1 ? i32x4.extract_lane(whole, 1) : k === 2 ? i32x4.extract_lane(whole, 2) : i32x4.extract_lane(whole, 3);
        const s = k === 0 ? f32x4.extract_lane(share, 0) : k === 1 ? f32x4.extract_lane(share, 1) : k === 2 ? f32x4.extract_lane(share, 2) : f32x4.extract_lane(share, 3);
        const a = load<f32>(table + (<usize>i << 2));
        const b = load<f32>(table + (<usize>i << 2), 4);
        store<f32>(to + (k << 2), a + (b - a) * s);
      }
    }
    from += 16;
    to += 16;
  }
}
