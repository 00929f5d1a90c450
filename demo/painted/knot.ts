/** A mark of a rope tied in a trefoil: white where the rope is, with gaps where it goes under itself. */
import { newPicture, type Picture } from '#core/picture';

const STEPS = 720;
const ROPE = 0.4;
const GAP = 0.56;
const SAMPLES = 3;

/** Heights 0–1, `side` pixels a side. */
export function knotPicture(side: number): Picture {
  const points = Array.from({ length: STEPS }, (_, i) => {
    const t = (i / STEPS) * 2 * Math.PI;
    return {
      x: Math.sin(t) + 2 * Math.sin(2 * t),
      y: Math.cos(t) - 2 * Math.cos(2 * t),
      z: -Math.sin(3 * t),
      // Strands laid in the rope.
      lay: Math.sin(t * 42),
      step: i,
    };
  }).sort((a, b) => a.z - b.z);
  const wide = side * SAMPLES;
  const fine = new Float32Array(wide * wide);
  /** Which step of the rope each pixel shows. */
  const shown = new Int16Array(wide * wide).fill(-1);
  const apart = (a: number, b: number): boolean => Math.min(Math.abs(a - b), STEPS - Math.abs(a - b)) > STEPS / 12;
  const scale = wide / 7.6;
  for (const { x, y, lay, step } of points) {
    const [cx, cy] = [wide / 2 + x * scale, wide / 2 + y * scale];
    const reach = GAP * scale;
    for (let j = Math.max(0, Math.floor(cy - reach)); j <= Math.min(wide - 1, cy + reach); j++)
      for (let i = Math.max(0, Math.floor(cx - reach)); i <= Math.min(wide - 1, cx + reach); i++) {
        const far = Math.hypot(i - cx, j - cy) / scale;
        if (far > GAP) continue;
        const at = j * wide + i;
        // The rope over what was below it, which keeps a gap from it.
        if (far <= ROPE) {
          fine[at] = lay > 0.9 && far < ROPE * 0.75 ? 0 : 1;
          shown[at] = step;
        } else if (shown[at] >= 0 && apart(shown[at], step)) fine[at] = 0;
      }
  }
  const out = newPicture(side);
  for (let j = 0; j < side; j++)
    for (let i = 0; i < side; i++) {
      let sum = 0;
      for (let b = 0; b < SAMPLES; b++)
        for (let a = 0; a < SAMPLES; a++) sum += fine[(j * SAMPLES + b) * wide + i * SAMPLES + a];
      out.data[j * side + i] = sum / SAMPLES ** 2;
    }
  return out;
}
