/** One step of a recipe on a raster. Lengths in per cent of the longer side become pixels here. */
import {
  addNoise,
  bevel,
  blur,
  chamferProfile,
  combine,
  crop,
  cut,
  deband,
  despeckle,
  evenLight,
  feather,
  flip,
  heightsFromShading,
  invert,
  isFourSided,
  levels,
  mirror,
  padded,
  proportionOf,
  radial,
  removeBackground,
  repeat,
  resize,
  retouch,
  roundProfile,
  seamless,
  sharpen,
  sized,
  squared,
  straightenedFrom,
  straightenedSize,
  terrace,
  threshold,
  toneCurve,
  turned,
} from '#core/filter';
import { curveAt, prepareCurve } from '#core/falloff';
import { eachPlane, edgeGround, rasterOf, toGrey, type Picture, type Raster } from '#core/picture';
import { pickMatte, type Segment } from '#core/segment';
import type { Step, StepOf } from '#core/settings';

export interface StepContext {
  /** Share of full size that the raster has at the start: 1 at full size. */
  scale: number;
  /** Alphas that steps of kind combine name. */
  others: ReadonlyMap<string, Picture>;
  /** What picking out cuts with; null where there is none. */
  segment: Segment | null;
}

/** Full size, no other alphas, nothing to cut with. */
export const ALONE: StepContext = { scale: 1, others: new Map(), segment: null };

/** A step that can't be run as it stands; the sentence says what would mend it. */
export class StepError extends Error {}

const sidesOf = (way: 'across' | 'down' | 'both') => ({ across: way !== 'down', down: way !== 'across' });

export function runStep(raster: Raster, step: Step, context: StepContext): Raster {
  const { width, height } = raster;
  const longer = Math.max(width, height);
  const px = (percent: number): number => (percent / 100) * longer;
  const grey = (change: (p: Picture) => Picture): Raster => rasterOf(change(toGrey(raster)));
  switch (step.kind) {
    case 'crop':
      return cropped(raster, step);
    case 'straighten':
      return straightened(raster, (step.turn * Math.PI) / 180);
    case 'perspective':
      return inPerspective(raster, step);
    case 'flip':
      return eachPlane(raster, (p) => flip(p, sidesOf(step.way)));
    case 'resize': {
      const [w, h] = sized(width, height, Math.max(8, Math.round(step.side * context.scale)));
      return eachPlane(raster, (p) => resize(p, w, h));
    }
    case 'mix':
      return mixed(raster, step);
    case 'levels':
      return grey((p) => levels(p, step.black, step.mid, step.white));
    case 'curve':
      return grey((p) => toneCurve(p, step.nodes));
    case 'invert':
      return eachPlane(raster, invert);
    case 'threshold':
      return grey((p) => threshold(p, step.level, step.soft / 100));
    case 'blur':
      return eachPlane(raster, (p) => blur(p, px(step.radius)));
    case 'sharpen':
      return eachPlane(raster, (p) => sharpen(p, px(step.radius), step.amount / 100));
    case 'despeckle':
      return eachPlane(raster, (p) =>
        despeckle(p, { radiusPx: Math.max(1, px(step.size)), contrast: step.contrast / 100 }),
      );
    case 'background': {
      const choice =
        step.by === 'tone'
          ? { by: step.by, tone: step.tone }
          : step.by === 'click'
            ? { by: step.by, x: step.x, y: step.y }
            : { by: step.by };
      return grey((p) => removeBackground(p, choice, { tolerance: step.tolerance / 100, soft: step.soft / 100 }));
    }
    case 'even':
      return eachPlane(raster, (p) => evenLight(p, step.size / 100, step.way));
    case 'pickOut':
      return pickedOut(raster, step, context.segment);
    case 'shading':
      return grey((p) =>
        heightsFromShading(p, {
          lightRad: (step.light * Math.PI) / 180,
          largest: step.largest / 100,
          calm: step.calm / 100,
        }),
      );
    case 'deband':
      return eachPlane(raster, (p) => deband(p, step.step, Math.max(0.5, px(step.radius))));
    case 'noise':
      return grey((p) => addNoise(p, step.amount / 100, step.size / 100, step.seed));
    case 'feather':
      return grey((p) =>
        feather(p, { shape: step.shape, start: step.start / 100, end: step.end / 100, ground: edgeGround(p) }),
      );
    case 'symmetry':
      return eachPlane(raster, (p) => (step.way === 'radial' ? radial(p, step.copies) : mirror(p, sidesOf(step.way))));
    case 'repeat': {
      const [w, h] = sized(width * step.columns, height * step.rows, longer);
      return eachPlane(raster, (p) => resize(repeat(p, step.columns, step.rows), w, h));
    }
    case 'seamless':
      return eachPlane(raster, (p) => seamless(p, step.overlap / 100));
    case 'terrace':
      return grey((p) => terrace(p, step.steps, step.soft / 100));
    case 'bevel':
      return grey((p) =>
        bevel(p, { level: step.level, widthPx: Math.max(0.5, px(step.width)), profile: profileOf(step) }),
      );
    case 'combine':
      return grey((p) => combined(p, step, context.others));
    case 'pad':
      return grey((p) => padded(p, step.margin / 100, step.centre));
    case 'cut':
      return grey((p) => cut(p, step.outlines, px(step.soft)));
    case 'retouch':
      return grey((p) => retouch(p, step.strokes, edgeGround(p)));
  }
}

/** On a canvas that holds the turned corners. */
function straightened(raster: Raster, turn: number): Raster {
  if (turn === 0) return raster;
  const c = Math.abs(Math.cos(turn));
  const s = Math.abs(Math.sin(turn));
  const size = {
    width: Math.round(raster.width * c + raster.height * s),
    height: Math.round(raster.width * s + raster.height * c),
  };
  return eachPlane(raster, (p) => turned(p, turn, edgeGround(p), 1, size));
}

function inPerspective(raster: Raster, { corners, proportion, ratio }: StepOf<'perspective'>): Raster {
  if (!isFourSided(corners))
    throw new StepError('The corners make no four-sided shape: drag them to the corners of something square, in turn.');
  const wanted = proportion === 'square' ? 1 : proportion === 'own' ? ratio : proportionOf(corners, raster);
  const size = straightenedSize(corners, raster, Math.max(0.05, Math.min(20, wanted)));
  return eachPlane(raster, (p) => straightenedFrom(p, corners, size, edgeGround(p)));
}

/** The picture times its matte, over black: its tones and colours stay. */
function pickedOut(raster: Raster, { strokes, edge }: StepOf<'pickOut'>, segment: Segment | null): Raster {
  if (!strokes.some(({ inside }) => inside)) throw new StepError('Draw a stroke over what you want to pick out.');
  if (!segment) throw new StepError('Picking out isn’t possible here.');
  const { data: matte } = pickMatte(raster, { strokes, edge: edge / 100, segment });
  return eachPlane(raster, (p) => ({ ...p, data: p.data.map((v, i) => v * matte[i]) }));
}

function cropped(raster: Raster, { left, right, top, bottom }: StepOf<'crop'>): Raster {
  const { width, height } = raster;
  const x0 = Math.round((left / 100) * width);
  const y0 = Math.round((top / 100) * height);
  const w = Math.round(width * (1 - right / 100)) - x0;
  const h = Math.round(height * (1 - bottom / 100)) - y0;
  if (w < 1 || h < 1)
    throw new StepError(
      'The crop leaves nothing of the picture: left and right, or top and bottom, come to 100 % or more.',
    );
  return eachPlane(raster, (p) => crop(p, { left: x0, top: y0, width: w, height: h }));
}

function mixed(raster: Raster, { red, green, blue }: StepOf<'mix'>): Raster {
  if (raster.planes.length === 1) return raster;
  const out = toGrey(raster, [red / 100, green / 100, blue / 100]);
  for (let i = 0; i < out.data.length; i++) out.data[i] = Math.max(0, Math.min(1, out.data[i]));
  return rasterOf(out);
}

function profileOf(step: StepOf<'bevel'>): (t: number) => number {
  switch (step.profile) {
    case 'round':
      return roundProfile;
    case 'chamfer':
      return chamferProfile;
    case 'own': {
      const curve = prepareCurve(step.nodes);
      return (t) => curveAt(curve, t);
    }
  }
}

function combined(picture: Picture, step: StepOf<'combine'>, others: ReadonlyMap<string, Picture>): Picture {
  if (step.alphaId === null) throw new StepError('Choose the alpha that is combined with this one.');
  const other = others.get(step.alphaId);
  if (!other)
    throw new StepError('The alpha that was combined here has been deleted. Choose another, or remove the step.');
  const whole = squared(picture);
  const side = whole.width;
  const scale = (side / other.width) * (step.scale / 100);
  // Reduced first where it shrinks a lot, so that every pixel of it counts.
  const fitted =
    scale < 1
      ? resize(other, Math.max(1, Math.round(other.width * scale)), Math.max(1, Math.round(other.height * scale)))
      : other;
  const placed = turned(fitted, (step.turn * Math.PI) / 180, edgeGround(other), Math.max(1, scale), {
    width: side,
    height: side,
  });
  return combine(whole, placed, step.way, step.strength / 100);
}
