/**
 * A brush's picture: what it does to a small flat tile, by the same calculation that stamps a body.
 * One stamp for types that lay one, two of other sizes for one that is grown, a waved stroke for those that run;
 * brushes that need something to work on get ripples, and what a mask covers is dark.
 */
import type { ResolvedBrush } from '#core/brush';
import { castHeights } from '#core/cast';
import { linearOf, srgbOfHex } from '#core/colour';
import { ball, buildMesh, plane, type Mesh, type Ray } from '#core/mesh';
import type { Picture } from '#core/picture';
import { PLAIN_THUMBNAIL, type Thumbnail } from '#core/settings';
import { beginStroke, endStroke, extendStroke, session } from '#core/session';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import { needsClay, runsAlong, scaledTo } from './scaled';
import { meshPicture, standing } from './meshPicture';
import { beginPaint, flatClay, flatlyUnwrapped, tint } from './painted';
import { shade } from './shade';

export const THUMBNAIL_SIZE = 160;
/** Rises when the same brush gets another picture. */
export const THUMBNAIL_VERSION = 6;
const CELLS = 224;
/** Texels a side, of what is painted. */
const TEXTURE = 512;
/** Clay to be smoothed is coarser, so that a few passes show. */
const COARSE_CELLS = 96;
const PASSES = 5;
/** Side of the tile that is seen. */
const SIDE = 1.96;
/** Side of the square that the texture lies over. */
const TEXTURED = 2;
const DOWN = [0, 0, -1] as const;
/** Two stamps of one drag each. */
const GROWN = [
  { size: 0.68, at: [0.22, 0.2], turnRad: 0 },
  { size: 0.27, at: [-0.62, -0.6], turnRad: 0.7 },
] as const;

/** What is stroked on: how much smaller the strokes are on it, and the side that is seen. */
const BODIES = {
  tile: { share: 1, side: SIDE },
  ball: { share: 0.78, side: 2.16 },
} as const;
const BALL_CELLS = 110;

/** RGBA bytes of THUMBNAIL_SIZE². */
export function brushThumbnail(brush: ResolvedBrush, look: Thumbnail = PLAIN_THUMBNAIL): Uint8ClampedArray {
  if (brush.parts) {
    const [first] = brush.parts.parts;
    return meshPicture(first.stood, THUMBNAIL_SIZE);
  }
  const smooths = brush.action === 'smooth' || brush.action === 'flatten';
  const onBall = look.body === 'ball';
  const { share, side } = BODIES[look.body];
  const raw = onBall ? ball(smooths ? BALL_CELLS / 2 : BALL_CELLS) : plane(smooths ? COARSE_CELLS : CELLS, 2);
  if (needsClay(brush)) ripple(raw.positions, onBall);
  const mesh = buildMesh(brush.paint ? flatlyUnwrapped(raw, TEXTURED) : raw);
  const s = session(surface(mesh), { replay: false });
  beginPaint(s, brush, TEXTURE);
  const wave = brush.action === 'move' || runsAlong(brush);
  const stroke = (size: number, samples: Ray[], turnRad = 0): void => {
    const scaled = scaledTo(brush, size * share);
    beginStroke(s, {
      brush: { ...scaled, turnRad: scaled.turnRad + turnRad, strokeType: runsAlong(brush) ? 'trail' : 'press' },
      seed: 1,
      dig: false,
      symmetry: NO_SYMMETRY,
      view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
    });
    extendStroke(
      s,
      samples.map(({ origin: [x, y, z], ...ray }) => ({ ...ray, origin: [x * share, y * share, z] })),
    );
    endStroke(s);
  };
  for (let pass = 0; pass < (smooths ? PASSES : 1); pass++) {
    if (brush.action === 'move') stroke(0.55, [down(-0.2, -0.15), down(0.25, 0.2)]);
    else if (wave) stroke(0.3, waved());
    else if (brush.strokeType === 'grow')
      for (const { size, at, turnRad } of GROWN) stroke(size, [down(at[0], at[1])], turnRad);
    else stroke(0.86, [down(0, 0)]);
  }
  const seen = (side * 100) / look.zoom;
  const ground = look.ground === null ? null : linearOf(srgbOfHex(look.ground)!);
  const lit = { light: look.light, ground };
  const picture = (): Uint8ClampedArray =>
    (onBall || look.zoom < 100 ? standing : shade)(from(mesh, seen), seen / THUMBNAIL_SIZE, lit);
  if (brush.action === 'mask') return masked(mesh, picture(), seen);
  const data = picture();
  if (s.painting)
    tint({ width: THUMBNAIL_SIZE, height: THUMBNAIL_SIZE, data }, s.painting, seen / TEXTURED, flatClay(lit));
  return data;
}

/** Heights from above. */
function from(mesh: Mesh, side: number): Picture {
  return castHeights(mesh, { frame: { x: 0, y: 0, turn: 0, side }, size: THUMBNAIL_SIZE, samples: 4 });
}

/** The masks are looked at as heights, and darken the clay. */
function masked(mesh: Mesh, clay: Uint8ClampedArray, side: number): Uint8ClampedArray {
  for (let v = 0; v < mesh.vertexCount; v++) mesh.positions[v * 3 + 2] = mesh.mask[v];
  const covered = from(mesh, side).data;
  for (let i = 0; i < clay.length; i++) if (i % 4 < 3) clay[i] *= 1 - 0.62 * (covered[i >> 2] || 0);
  return clay;
}

function waved(): Ray[] {
  const rays: Ray[] = [];
  for (let i = 0; i <= 60; i++) {
    const t = i / 60;
    rays.push(down(-0.62 + 1.24 * t, 0.42 * Math.sin(t * 2 * Math.PI)));
  }
  return rays;
}

function down(x: number, y: number): Ray {
  return { origin: [x, y, 4], direction: DOWN };
}

function ripple(positions: Float32Array, outwards: boolean): void {
  for (let i = 0; i < positions.length; i += 3) {
    const by = 0.03 * Math.sin(positions[i] * 21 + positions[i + 1] * 13);
    if (outwards) for (let k = 0; k < 3; k++) positions[i + k] *= 1 + by;
    else positions[i + 2] = by;
  }
}
