/**
 * One dab and its copies under symmetry: gather what each touches, weigh it, let the action work, renew what hangs on
 * it.
 *
 * All copies look at the clay as it was before any of them moved it, so that copies that overlap stay symmetric.
 */
import type { DabFrame, ResolvedBrush, Vec3 } from '#core/brush';
import { LEAF_SHIFT } from '#core/mesh';
import { levelFor } from '#core/picture';
import { exhausted } from '#core/settings';
import { keepConnected } from './connected';
import type { StencilRows, Stop } from '#core/stroke';
import { dabForm, type DabForm } from './height';
import { applyForm, applyTooth } from './applyForm';
import { noteChanged, displacementsOf, type Surface } from './surface';

export interface Dab {
  frame: DabFrame;
  /** The one that was hit; null for a copy under symmetry. */
  triangle: number | null;
  /** Where a Move drag has got to, from its beginning. */
  by: Vec3;
  /** Unit direction that Lift moves along; null for each vertex's own normal. */
  along: Vec3 | null;
  /** Where a shuffled dab reads its picture, in sides. */
  shuffle: readonly [number, number];
  stencil: StencilRows | null;
  /** It stands at an end or a corner of a path. */
  stop?: Stop | null;
  /** What pen, tapers and fade leave of the brush’s strength, 0–1 and beyond. */
  share?: number;
  /** Length of the stroke so far, body units. */
  travelled?: number;
}

/** A full-strength dab of Smooth takes this many steps towards the mean of the neighbours. */
const SMOOTH_STEPS = 4;
/** Build raises hollows by at most this many times its own height in a dab. */
const BUILD_MOST = 2;

/** What one copy touches, as it was gathered. */
export interface Touched {
  dab: Dab;
  touched: Uint32Array;
  u: Float32Array;
  v: Float32Array;
  amount: Float32Array;
}

/** A dab and its copies, with what each touches of a surface that they haven't moved yet. */
export interface Gathered {
  brush: ResolvedBrush;
  sign: 1 | -1;
  /** Vertices, those of all copies together. */
  touched: number;
  /** A dab without copies: what it touches still lies in the surface's work lists. */
  alone: Dab | null;
  copies: readonly Touched[];
}

/** Finds what a dab and its copies touch and weighs it; moves nothing. `sign` −1 digs. */
export function gatherDabs(s: Surface, dabs: readonly Dab[], brush: ResolvedBrush, sign: 1 | -1): Gathered {
  const copies: Touched[] = [];
  let alone: Dab | null = null;
  let touched = 0;
  for (const dab of dabs) {
    // A Lift is measured on the surface its stroke began on, so that a stroke's own growth doesn't tip or stretch what
    // follows; the others work on the clay as it is now.
    const fromStart = brush.action === 'lift' || brush.action === 'mask';
    if (s.loops.gather(s, dab.frame, brush, fromStart) === 0) continue;
    if (brush.connected) keepConnected(s, dab.frame, brush, fromStart, dab.triangle);
    touched += s.touchedCount;
    weigh(s, dab, brush, sign);
    if (dabs.length === 1) alone = dab;
    else copies.push(snapshot(s, dab));
  }
  return { brush, sign, touched, alone, copies };
}

/** Moves what was gathered last. */
export function applyGathered(s: Surface, { brush, sign, alone, copies }: Gathered): void {
  if (alone) {
    act(s, alone, brush, sign);
    return settle(s, brush);
  }
  if (brush.action === 'smooth' && copies.length > 0) relax(s, brush, copies);
  else for (const one of copies) act(restore(s, one), one.dab, brush, sign);
  for (const one of copies) settle(restore(s, one), brush);
}

/** Fills `amount`; looks at the clay, moves nothing. */
function weigh(s: Surface, dab: Dab, brush: ResolvedBrush, sign: 1 | -1): void {
  const { loops } = s;
  const { frame } = dab;
  const form = dabForm(brush, frame, dab.stencil, s.spacing);
  const applyWithTooth = (of: DabForm | null, masked: boolean): void => {
    applyForm(s, dab, brush, of, masked);
    if (brush.tooth) applyTooth(s, frame, brush.tooth);
  };
  switch (brush.action) {
    case 'lift':
      if (!brush.vector) applyWithTooth(form, true);
      return;
    case 'inflate':
    case 'crease':
      return applyWithTooth(form, true);
    case 'mask':
      return applyWithTooth(form, false);
    case 'smooth':
    case 'move':
      return applyWithTooth(shaped(form), true);
    case 'build': {
      loops.weigh(s, brush, null, true);
      const mean = loops.meanHeight(s, frame);
      if (form.picture || brush.tooth) applyWithTooth(form, true);
      // Up to a plane a little over the mean: hollows fill first, what stands higher stays.
      return loops.level(
        s,
        frame,
        mean + form.scale * sign,
        brush.strength,
        Math.abs(form.scale) * BUILD_MOST,
        sign > 0 ? -1 : 1,
      );
    }
    case 'flatten': {
      applyWithTooth(shaped(form), true);
      // Digging cuts what stands over the mean and leaves hollows as they are.
      return loops.level(s, frame, loops.meanHeight(s, frame), brush.strength, Infinity, sign > 0 ? 0 : 1);
    }
    case 'insert':
    case 'paint':
    case 'smudge':
    case 'erase':
    case 'fill':
      // Leave the clay.
      return;
    default:
      return exhausted(brush.action);
  }
}

/** Moves what was weighed. */
function act(s: Surface, dab: Dab, brush: ResolvedBrush, sign: 1 | -1): void {
  const { loops } = s;
  const { frame, by } = dab;
  const scale = dabForm(brush, frame, dab.stencil, s.spacing).scale * brush.strength * sign;
  switch (brush.action) {
    case 'lift':
      return brush.vector ? liftVector(s, frame, brush, sign) : lift(s, dab, scale, brush.even);
    case 'build':
    case 'flatten':
      return loops.push(s, frame.normal, 1, false);
    case 'inflate':
      return loops.inflate(s, scale);
    case 'crease':
      return loops.crease(s, frame, -scale, -brush.pinch * brush.strength * frame.radius);
    case 'move':
      return loops.carry(s, by, brush.strength);
    case 'mask':
      return loops.paintMask(s, brush.strength * sign, brush.even);
    case 'smooth':
      return relax(s, brush, []);
    case 'insert':
    case 'paint':
    case 'smudge':
    case 'erase':
    case 'fill':
      return;
    default:
      return exhausted(brush.action);
  }
}

function lift(s: Surface, { along }: Dab, scale: number, even: boolean): void {
  if (along) s.loops.push(s, along, scale, even);
  else s.loops.pushOut(s, scale, even);
}

/** Steps towards the mean of the neighbours: one step of all copies, then the next. */
function relax(s: Surface, brush: ResolvedBrush, copies: readonly Touched[]): void {
  const steps = Math.max(1, Math.ceil(brush.strength * SMOOTH_STEPS));
  const share = (brush.strength * SMOOTH_STEPS) / steps;
  for (let step = 0; step < steps; step++) {
    if (copies.length === 0) {
      if (s.touchedCount === 0) return;
      s.loops.relax(s, share);
      s.loops.shift(s);
      continue;
    }
    const displacements = copies.map((one) => {
      s.loops.relax(restore(s, one), share);
      return displacementsOf(s).slice();
    });
    copies.forEach((one, i) => {
      restore(s, one);
      displacementsOf(s).set(displacements[i]);
      s.loops.shift(s);
    });
  }
}

/** A vector alpha moves each vertex along all three axes of the dab; one dab adds to another. */
function liftVector(s: Surface, frame: DabFrame, brush: ResolvedBrush, sign: 1 | -1): void {
  const { loops } = s;
  const side = (2 * frame.radius) / brush.fit;
  const axes = [undone(frame.tangent), frame.bitangent, frame.normal] as const;
  brush.vector?.forEach((offsets, k) => {
    const picture = levelFor(offsets, side / offsets.levels[0].width, s.spacing);
    loops.weigh(s, brush, { picture, fit: brush.fit, ground: 0, scale: 1 }, true);
    if (brush.tooth) applyTooth(s, frame, brush.tooth);
    loops.push(s, axes[k], side * brush.depth * brush.strength * sign, false);
  });
}

/** A squashed dab's tangent is longer by as much as the dab is narrower; offsets along it are squashed with it. */
function undone(tangent: Vec3): Vec3 {
  const square = tangent[0] * tangent[0] + tangent[1] * tangent[1] + tangent[2] * tangent[2];
  return [tangent[0] / square, tangent[1] / square, tangent[2] / square];
}

/** Normals and boxes where clay moved. Masks move nothing: the view hears of their leaves. */
function settle(s: Surface, brush: ResolvedBrush): void {
  if (brush.action !== 'mask') s.loops.renew(s, s.touched, s.touchedCount);
  else for (let i = 0; i < s.touchedCount; i++) noteChanged(s, s.touched[i] >> LEAF_SHIFT);
}

/** A brush without an alpha works evenly under its falloff. */
function shaped(form: DabForm): DabForm | null {
  return form.picture ? form : null;
}

function snapshot(s: Surface, dab: Dab): Touched {
  const n = s.touchedCount;
  return { dab, touched: s.touched.slice(0, n), u: s.u.slice(0, n), v: s.v.slice(0, n), amount: s.amount.slice(0, n) };
}

function restore(s: Surface, one: Touched): Surface {
  s.touched.set(one.touched);
  s.u.set(one.u);
  s.v.set(one.v);
  s.amount.set(one.amount);
  s.touchedCount = one.touched.length;
  return s;
}
