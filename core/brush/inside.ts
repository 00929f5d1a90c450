/**
 * What a brush does to its alpha inside its own form, while the alpha that others share stays as it is: repeated across
 * and down, mirrored, inverted, faded towards its edge.
 *
 * A repeated alpha keeps its true proportions: its relief is that of the smaller tile. Inverted, what stood over the
 * ground lies under it by as much. Faded, heights go back to the ground: h′ = ground + (h − ground) · s(d ÷ fade), with
 * d the distance from the footprint's edge, 1 in its middle, and s smooth from 0 to 1.
 */
import { levelFor, newPicture, pyramid, type Picture, type Pyramid } from '#core/picture';
import { INSIDE_DEFAULTS, type Brush } from '#core/settings';
import type { AlphaForm } from './form';

type Form = Brush['form'];

/** A repeated alpha is drawn finer than it is, up to so many pixels a side. */
const MOST_SIDE = 2048;

/** Whether anything is done to the alpha. */
export function isShaped(form: Form): boolean {
  return (Object.keys(INSIDE_DEFAULTS) as (keyof typeof INSIDE_DEFAULTS)[]).some(
    (key) => form[key] !== INSIDE_DEFAULTS[key],
  );
}

/** The alpha as this brush stamps it; the same one where nothing is done to it. */
export function shapedForm(alpha: AlphaForm, form: Form): AlphaForm {
  if (!isShaped(form)) return alpha;
  const key = JSON.stringify([form.ground, form.footprint, Object.keys(INSIDE_DEFAULTS).map((k) => form[k as 'fade'])]);
  if (alpha.shaped?.key === key) return alpha.shaped.form;
  const tiles = Math.max(form.across, form.down);
  const shaped: AlphaForm = {
    pyramid: pyramid(shapedPicture(alpha.pyramid, form)),
    relief: alpha.relief / tiles,
    vector: alpha.vector && shapedVector(alpha.vector, form),
  };
  alpha.shaped = { key, form: shaped };
  return shaped;
}

/** The grey that leaves the surface where it is, in the shaped picture. */
export function shapedGround({ ground, invert }: Form): number {
  return invert ? 1 - ground : ground;
}

/** Heights 0–1 as the brush stamps them. */
export function shapedPicture(heights: Pyramid, form: Form): Picture {
  const { ground, invert } = form;
  return mapped(heights, form, (h, weight) => {
    const faded = ground + (h - ground) * weight;
    return invert ? 1 - faded : faded;
  });
}

function shapedVector(
  [x, y, z]: readonly [Pyramid, Pyramid, Pyramid],
  form: Form,
): readonly [Pyramid, Pyramid, Pyramid] {
  const { across, down, mirrorAcross, mirrorDown, invert } = form;
  const of = (offsets: Pyramid, scale: number): Pyramid =>
    pyramid(mapped(offsets, form, (o, weight) => o * weight * scale));
  return [
    of(x, (mirrorAcross ? -1 : 1) / across),
    of(y, (mirrorDown ? -1 : 1) / down),
    of(z, (invert ? -1 : 1) / Math.max(across, down)),
  ];
}

function mapped(from: Pyramid, form: Form, of: (value: number, weight: number) => number): Picture {
  const { across, down, mirrorAcross, mirrorDown, fade, footprint } = form;
  const [first] = from.levels as [Picture];
  const tiles = Math.max(across, down);
  const side = Math.max(first.width, Math.min(MOST_SIDE, first.width * tiles));
  // A pixel of the tile may be wider than one of the alpha; then a coarser copy is read.
  const { width, height, data } = levelFor(from, 1 / first.width, tiles / side);
  const out = newPicture(side);
  const columns = places(side, { tiles: across, mirrored: mirrorAcross, count: width, wraps: tiles > 1 });
  const rows = places(side, { tiles: down, mirrored: mirrorDown, count: height, wraps: tiles > 1 });
  const square = footprint === 'square';
  for (let j = 0; j < side; j++) {
    const above = rows.first[j] * width;
    const below = rows.second[j] * width;
    const fy = rows.share[j];
    for (let i = 0; i < side; i++) {
      const left = columns.first[i];
      const right = columns.second[i];
      const fx = columns.share[i];
      const top = data[above + left] * (1 - fx) + data[above + right] * fx;
      const bottom = data[below + left] * (1 - fx) + data[below + right] * fx;
      const weight = fade > 0 ? weightAt((i + 0.5) / side, (j + 0.5) / side, fade / 100, square) : 1;
      out.data[j * side + i] = of(top * (1 - fy) + bottom * fy, weight);
    }
  }
  return out;
}

/** Between which two pixels of a tile each place along a side reads, and how far it is to the second. */
function places(
  side: number,
  { tiles, mirrored, count, wraps }: { tiles: number; mirrored: boolean; count: number; wraps: boolean },
): { first: Int32Array; second: Int32Array; share: Float32Array } {
  const out = { first: new Int32Array(side), second: new Int32Array(side), share: new Float32Array(side) };
  // A repeated picture goes on at its other side.
  const keep = (k: number): number => (wraps ? (k + count) % count : Math.max(0, Math.min(count - 1, k)));
  for (let i = 0; i < side; i++) {
    const at = ((i + 0.5) / side) * tiles;
    const within = at - Math.floor(at);
    const x = (mirrored ? 1 - within : within) * count - 0.5;
    const pixel = Math.floor(x);
    out.first[i] = keep(pixel);
    out.second[i] = keep(pixel + 1);
    out.share[i] = x - pixel;
  }
  return out;
}

function weightAt(x: number, y: number, fade: number, square: boolean): number {
  const [u, v] = [2 * x - 1, 2 * y - 1];
  const inside = 1 - (square ? Math.max(Math.abs(u), Math.abs(v)) : Math.hypot(u, v));
  const d = Math.max(0, Math.min(1, inside / fade));
  return d * d * (3 - 2 * d);
}
