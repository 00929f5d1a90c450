/**
 * Swatches: single strokes of a brush on a flat sheet, each in a colour of its own, as the hand drew them or side by
 * side, run again with the brush as it is now.
 */
import type { ResolvedBrush } from '#core/brush';
import { castHeights } from '#core/cast';
import { srgbOfHex } from '#core/colour';
import { buildMesh, type RawMesh } from '#core/mesh';
import { bringPainting, beginStroke, endStroke, extendStroke, session, undo, type Session } from '#core/session';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY, type Sample } from '#core/stroke';
import { newPicture } from '#core/picture';
import { flatClay, flatlyUnwrapped, tint } from './painted';
import { shade } from './shade';

/** Of the sheet, in units of the strokes; a brush of this radius draws on it. */
export const SHEET_WIDE = 8;
export const SHEET_HIGH = 2.2;
const RADIUS = 0.2;
/** Texels along the sheet. */
const TEXTURE = 1024;
const CELLS = 400;
/** White paper would make colours look darker than they are. */
const PAPER = [218, 213, 204] as const;

export interface SwatchPoint {
  x: number;
  y: number;
  pressure: number;
  /** Milliseconds. */
  time: number;
}

export interface Swatch {
  /** “#rrggbb”: the first colour of its stroke. */
  colour: string;
  points: readonly SwatchPoint[];
}

/** One short, slightly curved stroke in each colour, in rows from the upper left. */
export function rowOfSwatches(colours: readonly string[]): Swatch[] {
  const points = Array.from({ length: 24 }, (_, i): SwatchPoint => {
    const t = i / 23;
    return {
      x: t * 0.8,
      y: 0.1 * Math.sin(t * Math.PI * 2),
      pressure: 0.35 + 0.65 * Math.sin(Math.PI * t),
      time: i * 16,
    };
  });
  return aligned(colours.map((colour) => ({ colour, points })));
}

/**
 * Moved so that all stand in even rows, with even room between those of a row; one as wide as the sheet has a row of
 * its own. None is turned or sized.
 */
export function aligned(swatches: readonly Swatch[]): Swatch[] {
  const boxes = swatches.map(({ points }) => boxOf(points));
  const wideOf = (i: number): number => boxes[i].right - boxes[i].x + RADIUS * 2.2;
  const rows: number[][] = [];
  let room = 0;
  swatches.forEach((_, i) => {
    const wide = wideOf(i);
    if (rows.length === 0 || wide > room) {
      rows.push([]);
      room = SHEET_WIDE;
    }
    rows[rows.length - 1].push(i);
    room -= wide;
  });
  const out: Swatch[] = [];
  let before = Infinity;
  rows.forEach((row, r) => {
    const free = SHEET_WIDE - row.reduce((sum, i) => sum + wideOf(i), 0);
    // A row that isn’t full goes on as the one before it.
    const gap = Math.min(before, free / (row.length + 1));
    before = gap;
    let left = -SHEET_WIDE / 2 + gap;
    const y = SHEET_HIGH / 2 - ((r + 0.5) / rows.length) * SHEET_HIGH;
    for (const i of row) {
      const { x, right, y: low, top } = boxes[i];
      const [dx, dy] = [left + wideOf(i) / 2 - (x + right) / 2, y - (low + top) / 2];
      out.push({ ...swatches[i], points: swatches[i].points.map((p) => ({ ...p, x: p.x + dx, y: p.y + dy })) });
      left += wideOf(i) + gap;
    }
  });
  return out;
}

function boxOf(points: readonly SwatchPoint[]) {
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  return { x: Math.min(...xs), right: Math.max(...xs), y: Math.min(...ys), top: Math.max(...ys) };
}

/** Clay to be used for one sheet after another. */
export function swatchClay(): Session {
  return session(surface(buildMesh(flatlyUnwrapped(sheet(), SHEET_WIDE))), { replay: false });
}

/** RGBA bytes, `width` pixels wide; the height follows. */
export function swatchSheet(
  s: Session,
  brush: ResolvedBrush,
  swatches: readonly Swatch[],
  width: number,
): { width: number; height: number; data: Uint8ClampedArray } {
  bringPainting(s, TEXTURE);
  let strokes = 0;
  for (const [i, { colour, points }] of swatches.entries()) {
    const first = srgbOfHex(colour);
    const own = brush.paint && first ? { ...brush.paint, first } : brush.paint;
    beginStroke(s, {
      brush: { ...brush, paint: own, strokeType: points.length > 1 ? 'trail' : 'press' },
      scale: RADIUS / brush.radius,
      seed: i + 1,
      dig: false,
      symmetry: NO_SYMMETRY,
      view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
    });
    extendStroke(s, points.map(sampleAt));
    if (endStroke(s).touched > 0) strokes++;
  }
  const out = seen(s, width);
  if (s.painting) tint(out, s.painting, 1, PAPER);
  for (; strokes > 0; strokes--) undo(s);
  return out;
}

const sampleAt = ({ x, y, pressure, time }: SwatchPoint): Sample => ({
  origin: [x, y, 4],
  direction: [0, 0, -1],
  pressure,
  time,
});

/** Lit paper, as it was sculpted. */
function seen(s: Session, width: number): { width: number; height: number; data: Uint8ClampedArray } {
  const frame = { x: 0, y: 0, turn: 0, side: SHEET_WIDE };
  const whole = castHeights(s.surface.mesh, { frame, size: width, samples: 1 });
  const height = Math.floor((width * SHEET_HIGH) / SHEET_WIDE) - 2;
  const first = Math.round((width - height) / 2);
  const heights = { ...newPicture(width, height), data: whole.data.slice(first * width, (first + height) * width) };
  const data = shade(heights, SHEET_WIDE / width);
  const flat = flatClay();
  for (let i = 0; i < data.length; i += 4) for (let k = 0; k < 3; k++) data[i + k] = PAPER[k] * (data[i + k] / flat[k]);
  return { width, height, data };
}

function sheet(): RawMesh {
  const columns = CELLS;
  const rows = Math.round((CELLS * SHEET_HIGH) / SHEET_WIDE);
  const positions = new Float32Array((columns + 1) * (rows + 1) * 3);
  for (let j = 0, at = 0; j <= rows; j++)
    for (let i = 0; i <= columns; i++, at += 3) {
      positions[at] = (i / columns - 0.5) * SHEET_WIDE;
      positions[at + 1] = (j / rows - 0.5) * SHEET_HIGH;
    }
  const triangles = new Uint32Array(columns * rows * 6);
  for (let j = 0, at = 0; j < rows; j++)
    for (let i = 0; i < columns; i++, at += 6) {
      const a = j * (columns + 1) + i;
      const d = a + columns + 1;
      triangles.set([a, a + 1, d + 1, a, d + 1, d], at);
    }
  return { positions, triangles };
}
