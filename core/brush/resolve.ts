/** A brush's settings in the engine's units: radians, shares, tables. Done once a stroke, never once a dab. */
import { falloffTable, prepareCurve, type Curve } from '#core/falloff';
import type { Pyramid } from '#core/picture';
import type { Action, Brush, Direction, Mapping, PenLink, StrokeType } from '#core/settings';
import type { AlphaForm } from './form';
import { resolvePaint, type ResolvedPaint } from './paint';
import { resolveParts, type PartForm, type ResolvedParts } from './parts';
import { shapedForm, shapedGround } from './inside';

export interface ResolvedBrush {
  id: string;
  action: Action;
  strokeType: StrokeType;
  mapping: Mapping;
  direction: Direction;
  /** Body units. */
  radius: number;
  alpha: Pyramid | null;
  /** The alpha that it was made of, as others have it too. */
  ofAlpha: Pyramid | null;
  /** Offsets of a vector alpha, which Lift lays down whole. */
  vector: AlphaForm['vector'];
  relief: number;
  fit: number;
  turnRad: number;
  ground: number;
  /** Heights and ground are those of the alpha taken from 1. */
  inverted: boolean;
  /** 1 stamps the true proportion. */
  depth: number;
  /** Side of the alpha on the body where it repeats, body units. */
  tile: number;
  /** Body units that a full height is worth; null where the size says it. */
  height: number | null;
  /** Body units that Pull pulls, whatever the drag; 0 for as far as the drag. */
  pull: number;
  square: boolean;
  falloff: Float32Array;
  strength: number;
  footing: number;
  reach: number;
  pinch: number;
  even: boolean;
  /** Only what hangs together with the point under the hand, within the dab. */
  connected: boolean;
  /** Share of the dab's diameter from dab to dab. */
  spacing: number;
  /** Dabs a second while the hand rests. */
  rate: number;
  /** A path's spacing gives, so that dabs meet its ends and corners. */
  toEnds: boolean;
  turnFrom: Brush['stroke']['turnFrom'];
  /** Length of the string that a steadied dab is drawn along by, in radii. */
  steady: number;
  taper: Taper;
  /** Length after which nothing is left, in radii; 0 never fades. */
  fade: number;
  drift: Drift;
  /** Links that change nothing are left out. */
  pen: Record<'pressureSize' | 'pressureStrength' | 'speedSize' | 'speedStrength', PenCurve | null>;
  /** Body units a second that count as full speed. */
  fast: number;
  tooth: Tooth | null;
  /** What Insert sets down; null where none is there. */
  parts: ResolvedParts | null;
  /** What it does to the texture; null where it leaves that. */
  paint: ResolvedPaint | null;
}

/** Lengths in radii; size and strength are what a tip has of the whole. */
export interface Taper {
  start: number;
  end: number;
  size: number;
  strength: number;
}

/** Shares, of the radius where places are meant; turn in radians. */
export interface Drift {
  perStroke: boolean;
  count: number;
  along: number;
  across: number;
  size: number;
  leastSize: number;
  turnRad: number;
  squash: number;
  flip: number;
}

export interface PenCurve {
  low: number;
  high: number;
  curve: Curve;
}

export interface Tooth {
  picture: Pyramid;
  /** Goes along with each dab instead of lying still on the body. */
  carried: boolean;
  /** Side on the body in body units, or as a share of the dab's diameter. */
  side: number;
  follows: boolean;
  turnRad: number;
  /** The dab keeps base + gain × grey. */
  gain: number;
  base: number;
}

/** Relief of a brush without an alpha. */
export const PLAIN_RELIEF = 0.1;
const STEADY_RADII = 3;

/** Whether a stroke lays one stamp. */
function isSingle(type: StrokeType): boolean {
  return type === 'press' || type === 'grow' || type === 'pull';
}

/**
 * `form` and `tooth` are the alphas that the brush names, null where it names none or they aren't there; `partOf` has
 * the parts that are there.
 */
export function resolveBrush(
  brush: Brush,
  form: AlphaForm | null,
  tooth: AlphaForm | null = null,
  partOf: (partId: string) => PartForm | null = () => null,
): ResolvedBrush {
  const { form: f, touch, stroke, pen, drift } = brush;
  const shaped = form && shapedForm(form, f);
  return {
    id: brush.id,
    action: touch.action,
    strokeType: stroke.type,
    mapping: stroke.mapping,
    direction: touch.direction,
    radius: stroke.size,
    alpha: shaped?.pyramid ?? null,
    ofAlpha: form?.pyramid ?? null,
    vector: shaped?.vector ?? null,
    relief: shaped?.relief ?? PLAIN_RELIEF,
    fit: f.fit,
    turnRad: radians(f.turn),
    ground: form ? shapedGround(f) : f.ground,
    inverted: form !== null && f.invert,
    depth: f.depth / 100,
    tile: f.tile,
    pull: stroke.height,
    height: null,
    square: f.footprint === 'square',
    falloff: falloffTable(touch.falloff),
    strength: touch.strength / 100,
    footing: touch.footing / 100,
    reach: touch.reachDepth,
    pinch: touch.pinch / 100,
    even: touch.overlaps === 'even',
    connected: touch.takes === 'connected' || (touch.takes === 'auto' && isSingle(stroke.type)),
    spacing: stroke.spacing / 100,
    rate: stroke.rate,
    // A crease draws together across its own line, so it must know which way it runs.
    toEnds: stroke.toEnds,
    turnFrom: touch.action === 'crease' ? 'stroke' : stroke.turnFrom,
    steady: (stroke.steady / 100) * STEADY_RADII,
    taper: {
      start: stroke.taperStart,
      end: stroke.taperEnd,
      size: stroke.tipSize / 100,
      strength: stroke.tipStrength / 100,
    },
    fade: stroke.fade,
    drift: {
      perStroke: drift.per === 'stroke',
      count: drift.count,
      along: drift.along / 100,
      across: drift.across / 100,
      size: drift.size / 100,
      leastSize: drift.leastSize / 100,
      turnRad: radians(drift.turn),
      squash: drift.squash / 100,
      flip: drift.flip / 100,
    },
    pen: {
      pressureSize: penCurve(pen.pressureSize),
      pressureStrength: penCurve(pen.pressureStrength),
      speedSize: penCurve(pen.speedSize),
      speedStrength: penCurve(pen.speedStrength),
    },
    fast: pen.fast,
    tooth: resolveTooth(brush.tooth, tooth),
    parts: touch.action === 'insert' ? resolveParts(brush.parts, partOf) : null,
    paint: resolvePaint(brush, form),
  };
}

function resolveTooth(tooth: Brush['tooth'], alpha: AlphaForm | null): Tooth | null {
  if (!alpha || tooth.depth === 0) return null;
  const depth = tooth.depth / 100;
  const follows = tooth.scale === 'follows';
  return {
    picture: alpha.pyramid,
    carried: tooth.holds === 'dab',
    side: follows ? tooth.share / 100 : tooth.side,
    follows,
    turnRad: radians(tooth.turn),
    gain: tooth.invert ? -depth : depth,
    base: tooth.invert ? 1 : 1 - depth,
  };
}

function penCurve(link: PenLink): PenCurve | null {
  return link.low === 100 && link.high === 100
    ? null
    : { low: link.low / 100, high: link.high / 100, curve: prepareCurve(link.curve) };
}

function radians(degrees: number): number {
  return (degrees * Math.PI) / 180;
}
