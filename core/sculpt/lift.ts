/**
 * Lift: Δ = depth · relief · (2r/fit) · (h − ground) · f · strength along the dab's normal.
 *
 * Add up: every dab adds. Even: within a stroke a vertex takes the strongest dab, measured from where it stood
 * when the stroke began, so that overlaps leave no peaks.
 */
import type { DabFrame, ResolvedBrush } from '#core/brush';
import { LEAF, LEAF_SHIFT } from '#core/mesh';
import { dabForm, heightAt } from './height';
import type { Surface } from './surface';
import { weigh } from './weigh';

/** `sign` −1 digs. Works on the vertices gathered. */
export function lift(s: Surface, frame: DabFrame, brush: ResolvedBrush, sign: 1 | -1): void {
  const form = dabForm(brush, frame.radius, s.spacing);
  const strength = form.scale * brush.strength * sign;
  const [nx, ny, nz] = frame.normal;
  const { touched, u, v, touchedCount, start } = s;
  const { positions: p } = s.mesh;
  if (brush.even) reserveStrongest(s);
  const { strongest } = s;
  for (let i = 0; i < touchedCount; i++) {
    const amount = strength * heightAt(form, u[i]!, v[i]!) * weigh(brush, u[i]!, v[i]!);
    const vertex = touched[i]!;
    const at = vertex * 3;
    if (!brush.even) {
      p[at] = p[at]! + nx * amount;
      p[at + 1] = p[at + 1]! + ny * amount;
      p[at + 2] = p[at + 2]! + nz * amount;
      continue;
    }
    const held = start.slotOf[vertex >> LEAF_SHIFT]! * LEAF + (vertex & (LEAF - 1));
    if (Math.abs(amount) <= Math.abs(strongest[held]!)) continue;
    strongest[held] = amount;
    p[at] = start.positions[held * 3]! + nx * amount;
    p[at + 1] = start.positions[held * 3 + 1]! + ny * amount;
    p[at + 2] = start.positions[held * 3 + 2]! + nz * amount;
  }
}

function reserveStrongest(s: Surface): void {
  if (s.strongest.length >= s.start.count * LEAF) return;
  const more = new Float32Array(Math.max(s.start.count * LEAF, s.strongest.length * 2));
  more.set(s.strongest);
  s.strongest = more;
}
