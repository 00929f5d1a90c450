/** A pattern from its settings: the same settings give the same picture on every machine. White is highest. */
import type { Picture } from '#core/picture';
import { GrowSchema, PATTERN_FORMS, settingsIn, type Grow, type PatternForm, growSchema } from '#core/settings';
import { seeded } from '#core/random';
import { cells, cracks } from './cellForms';
import { scales, weave } from './coursedForms';
import { ridges, ripple, soft } from './noiseForms';
import { dots, fibres, pebbles } from './strewnForms';
import { wisps } from './wisps';

/** `size` is pixels a side. */
export function growPattern(grow: Grow, size: number): Picture {
  switch (grow.form) {
    case 'soft':
      return soft(grow, size);
    case 'ridges':
      return ridges(grow, size);
    case 'cells':
      return cells(grow, size);
    case 'scales':
      return scales(grow, size);
    case 'cracks':
      return cracks(grow, size);
    case 'weave':
      return weave(grow, size);
    case 'fibres':
      return fibres(grow, size);
    case 'pebbles':
      return pebbles(grow, size);
    case 'ripple':
      return ripple(grow, size);
    case 'dots':
      return dots(grow, size);
    case 'wisps':
      return wisps(grow, size);
  }
}

/** Variations of the same form, or of any when `form` is null. Each setting is drawn from the middle of its range. */
export function surprises(form: PatternForm | null, seed: number, tiles: boolean, count = 16): Grow[] {
  const random = seeded(seed, 15);
  return Array.from({ length: count }, (_, k) => {
    const of = form ?? PATTERN_FORMS[(k + Math.floor(seed)) % PATTERN_FORMS.length];
    const drawn: Record<string, unknown> = { form: of, tiles };
    for (const [key, meta] of settingsIn(growSchema(of))) {
      if (key === 'seed') continue;
      const t = 0.12 + 0.76 * random();
      const low = meta.scale === 'log' ? Math.max(meta.min, meta.fallback / 2.5) : meta.min;
      const high = meta.scale === 'log' ? Math.min(meta.max, meta.fallback * 2.5) : meta.max;
      const value = meta.scale === 'log' ? low * (high / low) ** t : low + (high - low) * t;
      drawn[key] = Math.round(value / meta.step) * meta.step;
    }
    drawn['seed'] = 1 + Math.floor(random() * 99998);
    return GrowSchema.parse(drawn);
  });
}
