/**
 * The strip: one stroke of a brush along a flat strip of clay under pressure that rises and falls, with a hand that
 * gets faster, by the same calculation as on a body; for stroke types that lay one stamp, a row of stamps that grow and
 * shrink.
 */
import type { ResolvedBrush } from '#core/brush';
import { castHeights } from '#core/cast';
import { buildMesh, type Mesh, type RawMesh } from '#core/mesh';
import { newPicture, type Picture } from '#core/picture';
import { beginStroke, endStroke, extendStroke, session, undo, type Session } from '#core/session';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY, type Sample } from '#core/stroke';
import { beginPaint, flatlyUnwrapped, tint } from './painted';
import { needsClay, runsAlong, scaledTo } from './scaled';
import { shade } from './shade';

/** Width and height of the clay; a brush's radius on it. */
const WIDE = 8;
const HIGH = 1.12;
const RADIUS = 0.42;
/** Scattered dabs need room beside the stroke. */
const MOST_ROOM = 1.2;
/** Cells along it. */
const CELLS_A_PIXEL = 2 / 3;
const LEAST_CELLS = 200;
const MOST_CELLS = 960;
/** Texels along it, of what is painted. */
const TEXTURE = 1024;
const LIGHTEST = 0.08;
const STEPS = 160;
/** The hand starts at this share of what the brush calls fast and ends at it. */
const SLOWEST = 0.05;

/** Clay for one strip after another, made when a brush first asks for it. */
export interface StripClay {
  readonly flat: Session;
  readonly rippled: Session;
}

/** As fine as a picture of this width shows. */
export function stripClay(width: number): StripClay {
  const cells = Math.max(LEAST_CELLS, Math.min(MOST_CELLS, Math.round(width * CELLS_A_PIXEL)));
  const make = (rippled: boolean): Session => {
    const raw = strip(cells);
    if (rippled)
      for (let i = 0; i < raw.positions.length; i += 3)
        raw.positions[i + 2] = 0.03 * Math.sin(raw.positions[i] * 21 + raw.positions[i + 1] * 13);
    return session(surface(buildMesh(flatlyUnwrapped(raw, WIDE))), { replay: false });
  };
  let flat: Session | null = null;
  let rippled: Session | null = null;
  return {
    get flat() {
      return (flat ??= make(false));
    },
    get rippled() {
      return (rippled ??= make(true));
    },
  };
}

/** RGBA bytes, `width` pixels wide; the height follows. */
export function brushStrip(
  clay: StripClay,
  brush: ResolvedBrush,
  width: number,
): { width: number; height: number; data: Uint8ClampedArray } {
  const s = needsClay(brush) ? clay.rippled : clay.flat;
  const radius = (RADIUS * 1.15) / (1 + Math.min(MOST_ROOM, brush.drift.across) * 0.8 + brush.drift.size * 0.4 + 0.15);
  beginPaint(s, brush, TEXTURE);
  let strokes = 0;
  for (const { samples, scale } of hands(brush, radius)) {
    beginStroke(s, {
      brush: { ...scaledTo(brush, radius), strokeType: runsAlong(brush) ? 'trail' : 'press' },
      scale,
      seed: strokes + 1,
      dig: false,
      symmetry: NO_SYMMETRY,
      view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
    });
    extendStroke(s, samples);
    if (endStroke(s).touched > 0) strokes++;
  }
  const out = picture(s.surface.mesh, width);
  if (brush.action === 'mask') darken(out, s.surface.mesh);
  if (s.painting) tint(out, s.painting, 1);
  for (; strokes > 0; strokes--) undo(s);
  return out;
}

/** What the hand does: one stroke, or a row of presses. */
function hands(brush: ResolvedBrush, radius: number): { samples: Sample[]; scale: number }[] {
  if (runsAlong(brush) || brush.action === 'move') {
    const reach = WIDE / 2 - radius * 1.3;
    // ∫ dx / speed, for a speed that grows evenly along the strip.
    const after = (t: number): number =>
      ((2 * reach * 1000) / (brush.fast * (1 - SLOWEST))) * Math.log(1 + ((1 - SLOWEST) / SLOWEST) * t);
    return [
      {
        scale: 1,
        samples: Array.from({ length: STEPS + 1 }, (_, i) => {
          const t = i / STEPS;
          return down(
            (2 * t - 1) * reach,
            0.12 * Math.sin(t * 4 * Math.PI),
            LIGHTEST + (1 - LIGHTEST) * Math.sin(Math.PI * t),
            after(t),
          );
        }),
      },
    ];
  }
  const out: { samples: Sample[]; scale: number }[] = [];
  for (let x = -WIDE / 2 + radius * 0.6; x < WIDE / 2 - radius * 0.4;) {
    const pressure = Math.sin(Math.PI * Math.max(0.06, Math.min(0.94, x / WIDE + 0.5)));
    const scale = 0.35 + 0.65 * pressure;
    out.push({ scale, samples: [down(x, 0, pressure, 0)] });
    x += radius * scale * 2.15;
  }
  return out;
}

function picture(mesh: Mesh, width: number): { width: number; height: number; data: Uint8ClampedArray } {
  const heights = seen(mesh, width);
  return { width: heights.width, height: heights.height, data: shade(heights, WIDE / width) };
}

/** The middle rows of a square cast. */
function seen(mesh: RawMesh, width: number): Picture {
  const whole = castHeights(mesh, { frame: { x: 0, y: 0, turn: 0, side: WIDE }, size: width, samples: 1 });
  const height = Math.floor((width * HIGH) / WIDE) - 2;
  const first = Math.round((width - height) / 2);
  return { ...newPicture(width, height), data: whole.data.slice(first * width, (first + height) * width) };
}

/** Masks are looked at as heights, and darken the clay. */
function darken(out: { width: number; data: Uint8ClampedArray }, mesh: Mesh): void {
  const positions = mesh.positions.slice();
  for (let v = 0; v < mesh.vertexCount; v++) positions[v * 3 + 2] = mesh.mask[v];
  const covered = seen({ positions, triangles: mesh.triangles }, out.width);
  for (let i = 0; i < out.data.length; i++) if (i % 4 < 3) out.data[i] *= 1 - 0.62 * covered.data[i >> 2];
}

function down(x: number, y: number, pressure: number, time: number): Sample {
  return { origin: [x, y, 4], direction: [0, 0, -1], pressure, time };
}

/** Rows of squares from left to right, with diagonals that take turns. */
function strip(columns: number): RawMesh {
  const rows = Math.round((columns * HIGH) / WIDE);
  const positions = new Float32Array((columns + 1) * (rows + 1) * 3);
  for (let j = 0, at = 0; j <= rows; j++) {
    for (let i = 0; i <= columns; i++, at += 3) {
      positions[at] = (i / columns - 0.5) * WIDE;
      positions[at + 1] = (j / rows - 0.5) * HIGH;
    }
  }
  const triangles = new Uint32Array(columns * rows * 6);
  for (let j = 0, at = 0; j < rows; j++) {
    for (let i = 0; i < columns; i++, at += 6) {
      const a = j * (columns + 1) + i;
      const d = a + columns + 1;
      triangles.set((i + j) % 2 === 0 ? [a, a + 1, d + 1, a, d + 1, d] : [a, a + 1, d, a + 1, d + 1, d], at);
    }
  }
  return { positions, triangles };
}
