/**
 * Pieces set down by a stroke: each dab and each of its copies is one. Which part comes is seeded by the stroke, so
 * that the same samples set the same pieces down again.
 */
import type { DabFrame, ResolvedBrush, ResolvedPart, ResolvedParts } from '#core/brush';
import { conformed, groundUnder } from '#core/part';
import { intoPiece, type PieceChange, type Pieces, type Placement } from '#core/scene';
import { seeded } from '#core/random';
import type { Dab, Surface } from '#core/sculpt';
import { cross, dot, length, minus, plus, scaled, unit, type Vec3 } from '#core/vector';
import type { StrokeRecord } from '#core/stroke';
import type { Target } from './target';

/** More pieces than this a stroke isn't given: an endless row at no spacing would end the page. */
const MOST_A_STROKE = 2000;

export function pieceTarget(
  pieces: Pieces,
  surface: Surface,
  { seed, part: picked }: Pick<StrokeRecord, 'seed' | 'part'>,
): Target {
  let made: PieceChange[] = [];
  let pending: PieceChange[] = [];
  let dabs = 0;
  let random = chanceOf(seed);
  return {
    gather(copies, sign, { parts }: ResolvedBrush) {
      pending = [];
      if (!parts || made.length >= MOST_A_STROKE) return 0;
      const stop = copies[0]?.stop ?? null;
      const part = parts.parts[whichPart(parts, { dab: dabs, random, picked, seed, stop })];
      pending = apart(copies).map((copy, i): PieceChange => {
        const id = freeId(pieces, `${(seed >>> 0).toString(36)}.${dabs}.${i}`);
        const { at, shape } = standing(part, copy, sign, surface);
        const { partId, mesh, name, seat } = part;
        return [id, { id, partId, mesh, name, seat, at, shape, colour: null, hidden: false }];
      });
      dabs++;
      return pending.length;
    },
    apply() {
      pieces.make(pending);
      made.push(...pending);
      pending = [];
    },
    rewind() {
      pieces.make(made.map(([id]) => [id, null]));
      made = [];
      dabs = 0;
      random = chanceOf(seed);
    },
    end() {
      if (made.length === 0) return [];
      return [{ kind: 'pieces', pieces: made.map(([id]): PieceChange => [id, null]).reverse() }];
    },
  };
}

/** On a mirror or an axis copies come to one place: one piece stands there. */
function apart(copies: readonly Dab[]): Dab[] {
  const out: Dab[] = [];
  for (const copy of copies) {
    const { origin, radius } = copy.frame;
    if (!out.some(({ frame }) => length(minus(frame.origin, origin)) < radius * ONE_PLACE)) out.push(copy);
  }
  return out;
}

/** Share of the radius. */
const ONE_PLACE = 0.1;

/** The chances by which a stroke of this seed takes its parts. */
export function chanceOf(seed: number): () => number {
  return seeded(seed ^ 0x5ca1ab1e);
}

/** A stroke of another day may have had the same seed. */
function freeId(pieces: Pieces, wanted: string): string {
  let id = wanted;
  while (pieces.get(id)) id += '+';
  return id;
}

export interface Next {
  /** The number of the dab in its stroke. */
  dab: number;
  random: () => number;
  /** Place in the set of the one that was picked by hand. */
  picked: number | undefined;
  /** The number of the stroke: single stamps come in turn too. */
  seed: number;
  /** It stands at an end or a corner of a path. */
  stop?: Dab['stop'];
}

/** The part that a brush sets down next. */
export function whichPart(
  { parts, order, chosen, ends, corners }: ResolvedParts,
  { dab, random, picked, seed, stop }: Next,
): number {
  const atStop = stop === 'end' ? ends : stop === 'corner' ? corners : null;
  if (atStop !== null) return atStop;
  const byHand = parts.findIndex(({ entry }) => entry === picked);
  if (byHand >= 0) return byHand;
  switch (order) {
    case 'sequence':
      return (Math.max(0, seed - 1) + dab) % parts.length;
    case 'chosen':
      return Math.min(chosen, parts.length - 1);
    case 'random': {
      const sum = parts.reduce((all, { chance }) => all + chance, 0);
      let left = random() * sum;
      if (sum <= 0) return 0;
      return Math.max(
        0,
        parts.findIndex(({ chance }) => chance > 0 && (left -= chance) < 0),
      );
    }
  }
}

interface Stands {
  at: Placement;
  shape: Float32Array | null;
}

/** A part on a dab: its up on the dab's normal, across along its tangent. Dug, it stands on its head. */
function standing(part: ResolvedPart, { frame, triangle }: Dab, sign: 1 | -1, surface: Surface): Stands {
  const at = placementOf(part, frame, sign);
  if (part.base === 'flat' || sign < 0) return { at, shape: null };
  return { at, shape: bentShape(part, at, triangle === null ? null : frame.origin, surface) };
}

/** Where a part stands on a dab that nothing bends: what is seen before the press is this too. */
export function placementOf({ unit: size, sunk, turnRad }: ResolvedPart, frame: DabFrame, sign: 1 | -1): Placement {
  const { tangent, bitangent, normal, radius } = frame;
  const scale = radius * size;
  const [c, s] = [Math.cos(turnRad), Math.sin(turnRad)];
  // A narrowed dab has a longer tangent.
  const narrow = 1 / dot(tangent, tangent);
  const across = scaled(tangent, narrow);
  const turnedAcross = plus(scaled(across, c), scaled(bitangent, s));
  const turnedForward = plus(scaled(across, -s), scaled(bitangent, c));
  const up = scaled(normal, sign * scale);
  return {
    origin: plus(frame.origin, scaled(up, -sunk)),
    across: scaled(turnedAcross, scale),
    // Standing on its head it is turned over, not mirrored.
    forward: scaled(turnedForward, sign * scale),
    up,
  };
}

/** The part's places on its seat, so that set down they follow the surface; null where it ends at once. */
function bentShape(part: ResolvedPart, at: Placement, origin: Vec3 | null, surface: Surface): Float32Array | null {
  const into = intoPiece(at);
  const scale = length(at.up);
  if (!into || !(scale > 0)) return null;
  const from = part.stood.positions;
  const normal = unit(at.up);
  const rests = origin ?? plus(at.origin, scaled(at.up, part.sunk));
  const flat = minus(at.forward, scaled(normal, dot(at.forward, normal)));
  const standing = { origin: rests, normal, forward: unit(length(flat) > 0 ? flat : cross(normal, at.across)) };
  const mirrored = dot(cross(at.across, at.forward), at.up) < 0 ? -1 : 1;
  let reach = 0;
  for (let v = 0; v < from.length; v += 3) reach = Math.max(reach, Math.hypot(from[v], from[v + 1]));
  const ground = groundUnder(surface.mesh, standing, reach * scale);
  const out = new Float32Array(from.length);
  const narrow = length(at.across) / scale;
  for (let v = 0; v < from.length; v += 3) {
    const bent = conformed(ground, [
      from[v] * scale * mirrored * narrow,
      from[v + 1] * scale,
      (from[v + 2] - part.sunk) * scale,
    ]);
    out.set(into.place(bent), v);
  }
  return out;
}
