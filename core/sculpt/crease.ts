/** Crease: cuts a line along the stroke and draws the clay together towards it; digging raises a ridge instead. */
import type { DabFrame, ResolvedBrush } from '#core/brush';
import { dabForm, heightAt } from './height';
import type { Surface } from './surface';
import { weigh } from './weigh';

export function crease(s: Surface, frame: DabFrame, brush: ResolvedBrush, sign: 1 | -1): void {
  const form = dabForm(brush, frame.radius, s.spacing);
  const cut = -form.scale * brush.strength * sign;
  const together = -brush.pinch * brush.strength * frame.radius;
  const [nx, ny, nz] = frame.normal;
  const [bx, by, bz] = frame.bitangent;
  const { touched, u, v, touchedCount } = s;
  const { positions: p } = s.mesh;
  for (let i = 0; i < touchedCount; i++) {
    const f = weigh(brush, u[i]!, v[i]!);
    const down = cut * heightAt(form, u[i]!, v[i]!) * f;
    const across = together * v[i]! * f;
    const at = touched[i]! * 3;
    p[at] = p[at]! + nx * down + bx * across;
    p[at + 1] = p[at + 1]! + ny * down + by * across;
    p[at + 2] = p[at + 2]! + nz * down + bz * across;
  }
}
