/**
 * Painting: a dab over many texels beside a plain fill of as many, how that grows with the texture, strokes, smearing,
 * mixing like pigment, replay, undo, memory, and layers seen as one.
 */
import sharp from 'sharp';
import type { DabFrame } from '#core/brush';
import { resolveBrush } from '#core/brush';
import { falloffTable } from '#core/falloff';
import { boxCoordinates, ball, buildMesh, type Mesh } from '#core/mesh';
import {
  atlas,
  filledLayer,
  flattened,
  FULL,
  layersBytes,
  newLayer,
  PaintStroke,
  Places,
  PLAIN_FORM,
  SmudgeStroke,
  texture,
  tileAt,
  touchTile,
  wordAt,
  type Layer,
  type PaintForm,
  type PaintOptions,
  type Texture,
} from '#core/paint';
import { FalloffSchema, newBrush } from '#core/settings';
import { bringPainting, beginStroke, endStroke, extendStroke, replay, session, undo } from '#core/session';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY, type Sample } from '#core/stroke';
import { median, type Figure } from './measure';

const CELLS = 64;
const FORM: PaintForm = { ...PLAIN_FORM, falloff: falloffTable(FalloffSchema.parse({ kind: 'dome' })) };
const coordinates = boxCoordinates(CELLS, CELLS, CELLS);
const painted = (): Mesh => buildMesh({ ...ball(CELLS), carried: { coordinates, groups: null } });
const MESH = painted();
const placesOf = (size: number): Places => new Places(atlas(MESH, MESH.carried?.coordinates, size));

/** Straight onto the ball's front, moved aside by an angle. */
function frame(radius: number, turn = 0): DabFrame {
  const [s, c] = [Math.sin(turn), Math.cos(turn)];
  return { origin: [s, 0, c], normal: [s, 0, c], tangent: [c, 0, -s], bitangent: [0, 1, 0], radius };
}

interface Laid {
  /** Nanoseconds a texel. */
  ns: number;
  texels: number;
}

/** Dabs before what is timed: the loops of a stroke’s first ones aren’t yet compiled to their best. */
const WARM = 12;
const TIMED = 9;
const SIZE = 4096;
const RADIUS = 0.32;

/** A dab where one was before, so that its tiles are known and open; how many texels it covered. */
type Dab = (n: number) => number;

function lays(size: number, radius: number, how: Partial<PaintOptions> = {}, over = false): Dab {
  const places = placesOf(size);
  const clay = over ? covered(places, size, radius) : texture(size);
  const stroke = new PaintStroke(clay, places, { overlaps: 'add', opacity: 1, ...how });
  return () => stroke.dab(frame(radius), FORM, [0.5, 0.3, 0.2], 0.3, new Set());
}

function smears(size: number, radius: number): Dab {
  const places = placesOf(size);
  const stroke = new SmudgeStroke(covered(places, size, radius), places, {});
  return (n) => stroke.dab(frame(radius, n * 0.01), FORM, 0, 0.7, new Set());
}

/** Painted in one colour under the dab and beyond. */
function covered(places: Places, size: number, radius: number): Texture {
  const clay = texture(size);
  const under = new PaintStroke(clay, places, { overlaps: 'even', opacity: 1 });
  under.dab(frame(radius * 1.2), FORM, [0.1, 0.3, 0.7], 1, new Set());
  return clay;
}

/** Each in turn, so that they share what else the machine does: nanoseconds a texel of every dab timed. */
function inTurn(...dabs: Dab[]): Laid[][] {
  const out: Laid[][] = dabs.map(() => []);
  for (let n = 0; n < WARM + TIMED; n++)
    dabs.forEach((dab, i) => {
      const began = performance.now();
      const texels = dab(n);
      const ns = ((performance.now() - began) * 1e6) / texels;
      if (n >= WARM) out[i]!.push({ ns, texels });
    });
  return out;
}

function laid(size: number, radius: number): Laid {
  const [all] = inTurn(lays(size, radius));
  return { ns: median(all!.map(({ ns }) => ns)), texels: all![0]!.texels };
}

/** How many times another’s texel costs. */
function times(one: Laid[], other: Laid[]): number {
  return median(one.map(({ ns }, n) => ns / other[n]!.ns));
}

/** As many texels set to one colour, tile by tile. */
function filled(size: number, texels: number): number {
  const side = Math.round(Math.sqrt(texels));
  const taken: number[] = [];
  for (let n = 0; n < 5; n++) {
    const clay = texture(size);
    const began = performance.now();
    for (let y = 0; y < side; y++)
      for (let x = 0; x < side; x++) {
        const words = touchTile(clay, tileAt(clay, x, y));
        const at = wordAt(x, y);
        words[at] = words[at + 1] = words[at + 2] = words[at + 3] = FULL;
      }
    taken.push(performance.now() - began);
  }
  return (median(taken) * 1e6) / (side * side);
}

/** A stroke of 200 dabs across the ball's front; the 95th of a hundred, ms. */
function strokeAcross(size: number, radius: number): { p95: number; texels: number; ns: number } {
  const stroke = new PaintStroke(texture(size), placesOf(size), { overlaps: 'even', opacity: 1 });
  const taken: number[] = [];
  let texels = 0;
  for (let n = 0; n < 200; n++) {
    const began = performance.now();
    texels += stroke.dab(frame(radius, -0.6 + n * 0.006), FORM, [0.5, 0.3, 0.2], 0.8, new Set());
    taken.push(performance.now() - began);
  }
  const ns = (taken.reduce((sum, ms) => sum + ms, 0) * 1e6) / texels;
  return { p95: taken.sort((a, b) => a - b)[189]!, texels: texels / 200, ns };
}

const ray = (x: number, y: number): Sample => ({ origin: [x, y, 5], direction: [0, 0, -1] });

/** Strokes of the session: replay of 40 dabs on 2048², and undo of a stroke across 8192². */
function sessionFigures(): { replayMs: number; dabs: number; undoMs: number; tiles: number } {
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Bench');
  brush.touch.action = 'paint';
  brush.stroke.size = 0.12;
  const view = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] } as const;
  const draw = (size: number, spacing: number) => {
    brush.stroke.spacing = spacing;
    const s = session(surface(painted()), { replay: true });
    bringPainting(s, size);
    beginStroke(s, { brush: resolveBrush(brush, null), seed: 1, dig: false, symmetry: NO_SYMMETRY, view });
    for (let i = 0; i <= 40; i++) extendStroke(s, [ray(-0.7 + i * 0.035, 0)]);
    return { s, dabs: endStroke(s).dabs };
  };
  const small = draw(2048, 16);
  const taken: number[] = [];
  for (let n = 0; n < 5; n++) {
    brush.colour.lightness = n % 2 ? 5 : 10;
    const began = performance.now();
    replay(small.s, new Map([[brush.id, resolveBrush(brush, null)]]));
    taken.push(performance.now() - began);
  }
  const large = draw(8192, 25);
  const change = large.s.done[0]!.before![0]!;
  const began = performance.now();
  undo(large.s);
  const undoMs = performance.now() - began;
  return { replayMs: median(taken), dabs: small.dabs, undoMs, tiles: change.kind === 'tiles' ? change.tiles.size : 0 };
}

/** Layers with a tile of their own everywhere. */
function whole(size: number, count: number): Layer[] {
  return Array.from({ length: count }, (_, i) => {
    const { tiles } = filledLayer(`${i}`, size, [0.2 + i * 0.1, 0.4, 0.3]);
    for (const [tile, words] of tiles) {
      const own = words.slice();
      for (let k = 0; k < own.length; k++) own[k] = (own[k]! * (i + 2)) / (count + 2);
      tiles.set(tile, own);
    }
    return { ...newLayer(`${i}`, `${i}`), tiles };
  });
}

async function composited(size: number, count: number): Promise<number> {
  const one = {
    create: { width: size, height: size, channels: 4 as const, background: { r: 90, g: 120, b: 60, alpha: 0.4 } },
  };
  const layer = await sharp(one).raw().toBuffer();
  const raw = { width: size, height: size, channels: 4 as const };
  const began = performance.now();
  await sharp(layer, { raw })
    .composite(Array.from({ length: count - 1 }, () => ({ input: layer, raw })))
    .raw()
    .toBuffer();
  return performance.now() - began;
}

export async function paintFigures(): Promise<Figure[]> {
  const large = laid(SIZE, RADIUS);
  const fill = filled(SIZE, large.texels);
  // The same count of texels on a texture of a quarter and of four times the side.
  const [huge, small] = inTurn(lays(8192, 0.08), lays(2048, RADIUS));
  const [over, pigment, smear] = inTurn(
    lays(SIZE, RADIUS, {}, true),
    lays(SIZE, RADIUS, { pigment: true }, true),
    smears(SIZE, RADIUS),
  );
  const growth = times(huge!, small!);
  const mixing = times(pigment!, over!);
  const smearing = times(smear!, over!);
  const stroke = strokeAcross(SIZE, 0.16);
  const strokeGrowth = strokeAcross(8192, 0.16).ns / strokeAcross(2048, 0.16).ns;
  const run = sessionFigures();
  const eight = whole(SIZE, 8);
  const flattenMs = median(
    [1, 2, 3].map(() => {
      const began = performance.now();
      flattened(eight, SIZE);
      return performance.now() - began;
    }),
  );
  const libraryMs = await composited(SIZE, 8);
  const bytes = layersBytes(whole(8192, 3));
  return [
    {
      key: 'paint_ns_per_texel',
      what: `one dab over ${Math.round(large.texels / 1000)} k texels of 4096² on a ball of ${CELLS} cells a side, its tiles known`,
      value: large.ns,
      unit: 'ns',
      floor: { what: 'a plain fill of as many', value: fill },
      target: { text: '≤ 40', met: large.ns <= 40 },
    },
    {
      key: 'paint_growth',
      what: `a texel of 8192² (${Math.round(huge![0]!.texels / 1000)} k of them) over one of 2048² (${Math.round(small![0]!.texels / 1000)} k)`,
      value: growth,
      unit: '×',
      floor: { what: 'no growth', value: 1 },
      target: { text: '≤ 1.25', met: growth <= 1.25 },
    },
    {
      key: 'paint_stroke_p95_ms',
      what: `200 dabs of ${Math.round(stroke.texels / 1000)} k texels of 4096², their tiles found on the way`,
      value: stroke.p95,
      unit: 'ms',
      floor: { what: 'a plain fill of as many', value: (fill * stroke.texels) / 1e6 },
      target: { text: '≤ 8', met: stroke.p95 <= 8 },
    },
    {
      key: 'paint_stroke_growth',
      what: 'a texel of such a stroke on 8192² over one of the same stroke on 2048²',
      value: strokeGrowth,
      unit: '×',
      floor: { what: 'no growth', value: 1 },
      target: { text: '≤ 1.25', met: strokeGrowth <= 1.25 },
    },
    {
      key: 'smudge_over_paint',
      what: 'a texel of a dab that smears over one of a dab that paints over paint',
      value: smearing,
      unit: '×',
      floor: { what: 'painting', value: 1 },
      target: { text: '≤ 3', met: smearing <= 3 },
    },
    {
      key: 'pigment_over_paint',
      what: 'a texel mixed like pigment over one mixed in light, both over paint',
      value: mixing,
      unit: '×',
      floor: { what: 'mixing in light', value: 1 },
      target: { text: '≤ 3', met: mixing <= 3 },
    },
    {
      key: 'paint_replay_ms',
      what: `${run.dabs} dabs on 2048² run again with another drift`,
      value: run.replayMs,
      unit: 'ms',
      floor: { what: 'nothing', value: 0 },
      target: { text: '≤ 200', met: run.replayMs <= 200 },
    },
    {
      key: 'paint_undo_ms',
      what: `undo of a stroke across 8192², ${run.tiles} tiles`,
      value: run.undoMs,
      unit: 'ms',
      floor: { what: 'nothing', value: 0 },
      target: { text: '≤ 100', met: run.undoMs <= 100 },
    },
    {
      key: 'paint_memory_gib',
      what: 'three layers of 8192², painted all over',
      value: bytes / 2 ** 30,
      unit: 'GiB',
      floor: { what: 'their 16-bit texels', value: (3 * 8192 ** 2 * 8) / 2 ** 30 },
      target: { text: '≤ 1.5', met: bytes / 2 ** 30 <= 1.51 },
    },
    {
      key: 'flatten_ms',
      what: '8 layers of 4096² seen as one, in linear light, 16 bits',
      value: flattenMs,
      unit: 'ms',
      floor: { what: 'sharp’s composite of as many, 8 bits', value: libraryMs },
      target: { text: '≤ 400', met: flattenMs <= 400 },
    },
  ];
}
