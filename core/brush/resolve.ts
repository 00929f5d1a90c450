/** A brush's settings in the engine's units: radians, shares, tables. Done once a stroke, never once a dab. */
import { falloffTable } from '#core/falloff';
import type { Pyramid } from '#core/picture';
import type { Action, Brush, StrokeType } from '#core/settings';
import type { AlphaForm } from './form';

export interface ResolvedBrush {
  id: string;
  action: Action;
  strokeType: StrokeType;
  /** Body units. */
  radius: number;
  alpha: Pyramid | null;
  /** Offsets of a vector alpha, which Lift lays down whole. */
  vector: AlphaForm['vector'];
  relief: number;
  fit: number;
  turnRad: number;
  ground: number;
  /** 1 stamps the true proportion. */
  depth: number;
  square: boolean;
  falloff: Float32Array;
  strength: number;
  footing: number;
  reach: number;
  pinch: number;
  even: boolean;
  /** Share of the dab's diameter from dab to dab. */
  spacing: number;
  /** Share of the radius. */
  scatter: number;
  turnFromStroke: boolean;
  /** Length of the string that a steadied dab is drawn along by, in radii. */
  steady: number;
  /** Share of size and strength that is left under no pressure. */
  sizeLow: number;
  strengthLow: number;
  /** Projected along the view instead of the surface's normal. */
  fromView: boolean;
}

/** Relief of a brush without an alpha. */
export const PLAIN_RELIEF = 0.1;
const STEADY_RADII = 3;

export function resolveBrush(brush: Brush, form: AlphaForm | null): ResolvedBrush {
  const { form: f, touch, stroke, pen } = brush;
  return {
    id: brush.id,
    action: touch.action,
    strokeType: stroke.type,
    radius: stroke.size,
    alpha: form?.pyramid ?? null,
    vector: form?.vector ?? null,
    relief: form?.relief ?? PLAIN_RELIEF,
    fit: f.fit,
    turnRad: (f.turn * Math.PI) / 180,
    ground: f.ground,
    depth: f.depth / 100,
    square: f.footprint === 'square',
    falloff: falloffTable(touch.falloff),
    strength: touch.strength / 100,
    footing: touch.footing / 100,
    reach: touch.reachDepth,
    pinch: touch.pinch / 100,
    even: touch.overlaps === 'even',
    spacing: stroke.spacing / 100,
    scatter: stroke.scatter / 100,
    // A crease draws together across its own line, so it must know which way it runs.
    turnFromStroke: stroke.turnFrom === 'stroke' || touch.action === 'crease',
    steady: (stroke.steady / 100) * STEADY_RADII,
    sizeLow: pen.sizeLow / 100,
    strengthLow: pen.strengthLow / 100,
    fromView: stroke.mapping === 'view',
  };
}
