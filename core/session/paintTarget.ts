/** A painting as what takes a stroke’s dabs. */
import type { ResolvedBrush, ResolvedPaint } from '#core/brush';
import {
  DabColours,
  FillStroke,
  PaintStroke,
  SmudgeStroke,
  type OnLayer,
  type Painting,
  type PaintForm,
  type Places,
  type Reading,
  type TileChange,
} from '#core/paint';
import { stencilSide } from '#core/stroke';
import type { StrokeRecord } from '#core/stroke';
import type { Dab } from '#core/sculpt';
import type { Target } from './target';

/** A stroke’s way of changing a texture. */
interface Course {
  /** Lays a dab and its copies; answers how many texels it met. */
  apply(dabs: readonly Dab[], turned: boolean, brush: ResolvedBrush, changed: Set<number>): number;
  /** Answers the tiles that changed. */
  rewind(): Set<number>;
  end(): TileChange;
}

/** Null where the layer, or its mask, isn’t there. */
export function paintTarget(
  painting: Painting,
  places: Places,
  settings: ResolvedPaint,
  record: StrokeRecord,
): Target | null {
  const paint = { ...settings, ...record.colours };
  const on: OnLayer = record.layer ?? { layer: painting.layers.at(-1)!.id, mask: false };
  const texture = painting.texture(on);
  if (!texture) return null;
  const locked = !on.mask && painting.layers.find(({ id }) => id === on.layer)!.locked;
  const course = courseOf(paint, { texture, places, locked, record });
  places.begin();
  let pending: { dabs: readonly Dab[]; turned: boolean; brush: ResolvedBrush } | null = null;
  return {
    gather(dabs, sign, brush) {
      pending = { dabs, turned: sign < 0, brush };
      return dabs.length;
    },
    apply() {
      if (!pending) return;
      const changed = new Set<number>();
      course.apply(pending.dabs, pending.turned, pending.brush, changed);
      pending = null;
      painting.note(changed);
    },
    rewind() {
      painting.note(course.rewind());
      places.begin();
    },
    end() {
      const tiles = course.end();
      return tiles.size > 0 ? [{ kind: 'tiles', on, tiles: new Map(tiles) }] : [];
    },
  };
}

interface Means {
  texture: NonNullable<ReturnType<Painting['texture']>>;
  places: Places;
  locked: boolean;
  record: StrokeRecord;
}

function courseOf(paint: ResolvedPaint, { texture, places, locked, record }: Means): Course {
  const { pigment } = paint;
  switch (paint.does) {
    case 'paint':
    case 'erase':
      return paintCourse(
        paint,
        record,
        new PaintStroke(texture, places, {
          overlaps: record.brush.even ? 'even' : 'add',
          opacity: paint.opacity,
          erases: paint.does === 'erase',
          locked,
          pigment,
        }),
      );
    case 'smudge': {
      const stroke = new SmudgeStroke(texture, places, { locked, pigment });
      return {
        apply: (dabs, _, brush, changed) =>
          dabs.reduce(
            (sum, dab, copy) =>
              sum + stroke.dab(dab.frame, formOf(paint, brush, dab), copy, shareOf(paint, dab), changed),
            0,
          ),
        rewind: () => stroke.rewind(),
        end: () => stroke.end(),
      };
    }
    case 'fill': {
      const stroke = new FillStroke(texture, places, { locked, ...paint });
      return {
        apply: (dabs, turned, _, changed) => dabs.reduce((sum, dab) => sum + stroke.fill(dab, turned, changed), 0),
        rewind: () => stroke.rewind(),
        end: () => stroke.end(),
      };
    }
  }
}

function paintCourse(paint: ResolvedPaint, record: StrokeRecord, stroke: PaintStroke): Course {
  const colours = new DabColours(paint, record.seed);
  const radius = record.brush.radius * (record.scale ?? 1);
  return {
    apply(dabs, turned, brush, changed) {
      const [first] = dabs;
      if (!first) return 0;
      const travelled = (first.travelled ?? 0) / radius;
      if (paint.pickup > 0) colours.takeUp(stroke.below(first.frame, formOf(paint, brush, first)));
      const colour = colours.next(travelled, turned);
      const left = colours.left(travelled);
      return dabs.reduce(
        (sum, dab) =>
          sum + stroke.dab(dab.frame, formOf(paint, brush, dab), colour, shareOf(paint, dab) * left, changed),
        0,
      );
    },
    rewind() {
      colours.reset();
      return stroke.rewind();
    },
    end: () => stroke.end(),
  };
}

function shareOf({ flow }: ResolvedPaint, { share = 1 }: Dab): number {
  return Math.min(1, flow * share);
}

function formOf(paint: ResolvedPaint, brush: ResolvedBrush, dab: Dab): PaintForm {
  const { alpha, tooth } = brush;
  const read = readingOf(brush, dab);
  const side = tooth ? (tooth.follows ? tooth.side * 2 * dab.frame.radius : tooth.side) : 0;
  return {
    falloff: brush.falloff,
    square: brush.square,
    reach: brush.reach,
    connected: brush.connected ? { triangle: dab.triangle } : null,
    picture: alpha && read && paint.cover !== 'clear' ? { of: alpha, from: paint.cover, read } : null,
    colours: paint.colours && read ? { of: paint.colours, read, laid: paint.own } : null,
    tooth: tooth && {
      of: tooth.picture,
      gain: tooth.gain,
      base: tooth.base,
      read: tooth.carried
        ? { kind: 'repeated', map: flatMap(tooth.turnRad, dab.frame.radius / side) }
        : { kind: 'wrapped', side, turnRad: tooth.turnRad },
    },
    hardness: paint.hardness,
    pooling: paint.pooling,
  };
}

function flatMap(turnRad: number, by: number): readonly [number, number, number, number, number, number] {
  const [c, d] = [Math.cos(turnRad) * by, Math.sin(turnRad) * by];
  return [c, d, 0.5, d, -c, 0.5];
}

/** How the brush’s mapping reads its picture; null for a stencil that isn’t there. */
function readingOf(brush: ResolvedBrush, { frame, shuffle, stencil }: Dab): Reading | null {
  switch (brush.mapping) {
    case 'surface':
    case 'view':
      return { kind: 'flat', fit: brush.fit };
    case 'shuffled': {
      const half = brush.fit / 2;
      return { kind: 'repeated', map: [half, 0, 0.5 + shuffle[0], 0, -half, 0.5 + shuffle[1]] };
    }
    case 'wrapped':
      return { kind: 'wrapped', side: brush.tile, turnRad: brush.turnRad };
    case 'stencil':
      return (
        stencil && {
          kind: 'stencil',
          rows: stencil,
          side: stencilSide(stencil, frame.origin, frame.tangent, frame.bitangent),
        }
      );
  }
}
