/** Move: carries the clay under the dab along with the pointer, by the falloff's weight. */
import type { ResolvedBrush, Vec3 } from '#core/brush';
import type { Surface } from './surface';
import { weigh } from './weigh';

/** `by` in body units, from where the drag began. */
export function move(s: Surface, brush: ResolvedBrush, by: Vec3): void {
  const { touched, u, v, touchedCount } = s;
  const { positions: p } = s.mesh;
  for (let i = 0; i < touchedCount; i++) {
    const f = weigh(brush, u[i]!, v[i]!) * brush.strength;
    const at = touched[i]! * 3;
    p[at] = p[at]! + by[0] * f;
    p[at + 1] = p[at + 1]! + by[1] * f;
    p[at + 2] = p[at + 2]! + by[2] * f;
  }
}
