/**
 * A brush's picture: what it does to a small flat tile, by the same calculation that stamps a body.
 * One stamp for types that lay one, two of other sizes for one that is grown, a waved stroke for those that run;
 * brushes that need something to work on get ripples, and what a mask covers is dark.
 */
import type { ResolvedBrush } from '#core/brush';
import { castHeights } from '#core/cast';
import { buildMesh, plane, type Mesh, type Ray } from '#core/mesh';
import { beginStroke, endStroke, extendStroke, session } from '#core/session';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import { needsClay, runsAlong, scaledTo } from './scaled';
import { meshPicture } from './meshPicture';
import { beginPaint, flatlyUnwrapped, tint } from './painted';
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
const DOWN = [0, 0, -1] as const;
/** Two stamps of one drag each. */
const GROWN = [
  { size: 0.68, at: [0.22, 0.2], turnRad: 0 },
  { size: 0.27, at: [-0.62, -0.6], turnRad: 0.7 },
] as const;

/** RGBA bytes of THUMBNAIL_SIZE². */
export function brushThumbnail(brush: ResolvedBrush): Uint8ClampedArray {
  if (brush.parts) {
    const [first] = brush.parts.parts;
    return meshPicture(first.stood, THUMBNAIL_SIZE);
  }
  const smooths = brush.action === 'smooth' || brush.action === 'flatten';
  const raw = plane(smooths ? COARSE_CELLS : CELLS, 2);
  if (needsClay(brush)) ripple(raw.positions);
  const mesh = buildMesh(brush.paint ? flatlyUnwrapped(raw, 2) : raw);
  const s = session(surface(mesh), { replay: false });
  beginPaint(s, brush, TEXTURE);
  const wave = brush.action === 'move' || runsAlong(brush);
  const stroke = (size: number, samples: Ray[], turnRad = 0): void => {
    const scaled = scaledTo(brush, size);
    beginStroke(s, {
      brush: { ...scaled, turnRad: scaled.turnRad + turnRad, strokeType: runsAlong(brush) ? 'trail' : 'press' },
      seed: 1,
      dig: false,
      symmetry: NO_SYMMETRY,
      view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
    });
    extendStroke(s, samples);
    endStroke(s);
  };
  for (let pass = 0; pass < (smooths ? PASSES : 1); pass++) {
    if (brush.action === 'move') stroke(0.55, [down(-0.2, -0.15), down(0.25, 0.2)]);
    else if (wave) stroke(0.3, waved());
    else if (brush.strokeType === 'grow')
      for (const { size, at, turnRad } of GROWN) stroke(size, [down(at[0], at[1])], turnRad);
    else stroke(0.86, [down(0, 0)]);
  }
  if (brush.action === 'mask') return masked(mesh);
  const data = picture(mesh);
  if (s.painting) tint({ width: THUMBNAIL_SIZE, height: THUMBNAIL_SIZE, data }, s.painting, SIDE / 2);
  return data;
}

function picture(mesh: Mesh): Uint8ClampedArray {
  const heights = castHeights(mesh, { frame: { x: 0, y: 0, turn: 0, side: SIDE }, size: THUMBNAIL_SIZE, samples: 4 });
  return shade(heights, SIDE / THUMBNAIL_SIZE);
}

/** The masks are looked at as heights, and darken the clay. */
function masked(mesh: Mesh): Uint8ClampedArray {
  const clay = picture(mesh);
  for (let v = 0; v < mesh.vertexCount; v++) mesh.positions[v * 3 + 2] = mesh.mask[v];
  const covered = castHeights(mesh, { frame: { x: 0, y: 0, turn: 0, side: SIDE }, size: THUMBNAIL_SIZE, samples: 4 });
  for (let i = 0; i < clay.length; i++) if (i % 4 < 3) clay[i] *= 1 - 0.62 * covered.data[i >> 2];
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

function ripple(positions: Float32Array): void {
  for (let i = 0; i < positions.length; i += 3)
    positions[i + 2] = 0.03 * Math.sin(positions[i] * 21 + positions[i + 1] * 13);
}
