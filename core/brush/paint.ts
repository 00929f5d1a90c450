/** What a brush does to a texture, in the engine’s units. */
import { srgbOfHex, type ColourDrift, type Srgb } from '#core/colour';
import { paints, paintsOnly, type Brush, type ColourSettings } from '#core/settings';
import type { AlphaColours, AlphaForm } from './form';

export interface ResolvedPaint {
  does: 'paint' | 'smudge' | 'erase' | 'fill';
  first: Srgb;
  second: Srgb;
  drift: ColourDrift;
  per: ColourSettings['per'];
  /** Radii after which a colour that drifts along is another one. */
  length: number;
  /** 0–1. */
  flow: number;
  opacity: number;
  cover: ColourSettings['cover'];
  /** Colours of the alpha’s own, where they are laid or their cover is asked for. */
  colours: AlphaColours | null;
  /** Its own colours are laid, not the brush’s. */
  own: boolean;
  hardness: number;
  pooling: number;
  /** Radii; 0 never runs out. */
  load: number;
  pickup: number;
  pigment: boolean;
  fills: ColourSettings['fills'];
  tolerance: number;
}

/** Null where the brush leaves the texture. */
export function resolvePaint(brush: Brush, form: AlphaForm | null): ResolvedPaint | null {
  const { touch, colour: c } = brush;
  if (!paints(brush)) return null;
  const colours = form?.colours ?? null;
  return {
    does: paintsOnly(brush) ? (touch.action as ResolvedPaint['does']) : 'paint',
    first: srgbOfHex(c.first)!,
    second: srgbOfHex(c.second)!,
    drift: { hue: c.hue, chroma: c.chroma / 100, lightness: c.lightness / 100, mix: c.mix / 100 },
    per: c.per,
    length: c.length,
    flow: c.flow / 100,
    opacity: c.opacity / 100,
    cover: c.cover,
    colours: c.own || c.cover === 'clear' ? colours : null,
    own: c.own && colours !== null,
    hardness: c.hardness / 100,
    pooling: c.pooling / 100,
    load: c.load,
    pickup: c.pickup / 100,
    pigment: c.mixing === 'pigment',
    fills: c.fills,
    tolerance: c.tolerance / 100,
  };
}
