/**
 * How much each touched vertex takes of the dab: form × falloff × (1 − mask). Float32 throughout, as the compiled loop
 * works.
 */
import type { ResolvedBrush } from '#core/brush';
import { FALLOFF_STEPS } from '#core/falloff';
import type { Picture } from '#core/picture';
import type { DabForm } from '../height';
import type { Surface } from '../surface';

const r = Math.fround;

export function weigh(s: Surface, brush: ResolvedBrush, form: DabForm | null, masked: boolean): void {
  const { touched, u, v, amount, touchedCount } = s;
  const { mask } = s.mesh;
  for (let i = 0; i < touchedCount; i++) {
    let weight = falloffAt(brush, u[i], v[i]);
    if (form?.picture) weight = heightAt(form.picture, form, u[i], v[i], weight);
    amount[i] = masked ? weight * r(1 - mask[touched[i]]) : weight;
  }
}

function falloffAt(brush: ResolvedBrush, u: number, v: number): number {
  const rho = brush.square ? Math.max(Math.abs(u), Math.abs(v)) : r(Math.sqrt(r(r(u * u) + r(v * v))));
  const x = r(Math.min(rho, 1) * FALLOFF_STEPS);
  const i = x | 0;
  return between(brush.falloff[i], brush.falloff[i + 1], r(x - i));
}

/** h − ground, times the weight; outside the alpha's square the form moves nothing. Bilinear; the edge repeats. */
function heightAt(picture: Picture, form: DabForm, u: number, v: number, weight: number): number {
  const { width, height, data } = picture;
  const px = r(u * r(form.fit));
  const py = r(v * r(form.fit));
  if (Math.abs(px) > 1 || Math.abs(py) > 1) return 0;
  const x = Math.min(Math.max(r(r(r(r(px + 1) * 0.5) * width) - 0.5), 0), width - 1);
  const y = Math.min(Math.max(r(r(r(r(1 - py) * 0.5) * height) - 0.5), 0), height - 1);
  const i = x | 0;
  const j = y | 0;
  const at = j * width + i;
  const below = j + 1 < height ? at + width : at;
  const right = i + 1 < width ? 1 : 0;
  const top = between(data[at], data[at + right], r(x - i));
  const bottom = between(data[below], data[below + right], r(x - i));
  return r(r(between(top, bottom, r(y - j)) - r(form.ground)) * weight);
}

function between(a: number, b: number, share: number): number {
  return r(a + r(r(b - a) * share));
}
