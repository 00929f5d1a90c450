/**
 * The colours of a stroke’s dabs: the brush’s two, drifting, and what was taken up on the way.
 *
 * The chances are the stroke’s own, apart from those of places and sizes, so that a colour setting moves no dab.
 */
import type { ResolvedPaint } from '#core/brush';
import {
  drawColour,
  driftedColour,
  noiseColour,
  PigmentMixer,
  STILL,
  type ColourDraw,
  type Linear,
} from '#core/colour';
import { seeded, type Random } from '#core/random';

const OWN_CHANCES = 0x5ca1ab1e;

export class DabColours {
  private random: Random;
  private drawn: ColourDraw | null = null;
  /** What was taken up, and how much of it a dab lays, 0–1. */
  private taken: { colour: Linear; share: number } = { colour: [0, 0, 0], share: 0 };
  private readonly mixer = new PigmentMixer();

  constructor(
    private readonly paint: ResolvedPaint,
    private readonly seed: number,
  ) {
    this.random = seeded(seed ^ OWN_CHANCES);
  }

  /** As at the beginning of the stroke. */
  reset(): void {
    this.random = seeded(this.seed ^ OWN_CHANCES);
    this.drawn = null;
    this.taken = { colour: [0, 0, 0], share: 0 };
  }

  /** `travelled` in radii; `turned` begins from the second colour. */
  next(travelled: number, turned: boolean): Linear {
    const { first, second, drift } = this.paint;
    const draw = this.draw(travelled);
    const own = turned ? driftedColour(second, first, drift, draw) : driftedColour(first, second, drift, draw);
    const { colour, share } = this.taken;
    if (share <= 0) return own;
    if (this.paint.pigment) {
      this.mixer.paint(...colour);
      const [r, g, b] = this.mixer.over(...own, share);
      return [r, g, b];
    }
    return [0, 1, 2].map((k) => own[k] + (colour[k] - own[k]) * share) as unknown as Linear;
  }

  /** What is left of the paint, 0–1. */
  left(travelled: number): number {
    const { load } = this.paint;
    return load > 0 ? Math.max(0, 1 - travelled / load) : 1;
  }

  /** Takes up what lies below: colour times cover, and cover. */
  takeUp([r, g, b, alpha]: readonly [number, number, number, number]): void {
    const by = this.paint.pickup * alpha;
    if (by <= 0) return;
    const { colour, share } = this.taken;
    const all = share + by * (1 - share);
    const fresh = by / all;
    const below = [r / alpha, g / alpha, b / alpha];
    this.taken = {
      colour: [0, 1, 2].map((k) => colour[k] + (below[k] - colour[k]) * fresh) as unknown as Linear,
      // Some of its own stays in the brush.
      share: Math.min(this.paint.pickup, all),
    };
  }

  private draw(travelled: number): ColourDraw {
    const { drift, per, length } = this.paint;
    // Drawn whether or not it is asked for, so that one setting doesn’t change another’s chance.
    const own = drawColour(this.random);
    if (drift.hue + drift.chroma + drift.lightness + drift.mix === 0) return STILL;
    switch (per) {
      case 'dab':
        return own;
      case 'stroke':
        return (this.drawn ??= own);
      case 'along':
        return noiseColour(travelled / length, this.seed);
    }
  }
}
