/** Paint on the flat clay of small pictures: what a brush that paints works on, and how that is seen from above. */
import type { ResolvedBrush } from '#core/brush';
import { linearOf, type Linear } from '#core/colour';
import type { RawMesh } from '#core/mesh';
import { FULL, newLayer, texelAt, TILE, TILE_WORDS, tilesAcross, type Layer, type Painting } from '#core/paint';
import { bringPainting, type Session } from '#core/session';
import { newPicture } from '#core/picture';
import { shade, type Lit } from './shade';

/** Flat clay of a square `side` about the middle, as one island. */
export function flatlyUnwrapped({ positions: p, triangles }: RawMesh, side: number): RawMesh {
  const coordinates = new Float32Array(triangles.length * 2);
  triangles.forEach((v, i) => {
    coordinates[i * 2] = p[v * 3] / side + 0.5;
    coordinates[i * 2 + 1] = p[v * 3 + 1] / side + 0.5;
  });
  return { positions: p, triangles, carried: { coordinates, groups: null } };
}

/** Painting begins: clear, but for brushes that need paint to work on. */
export function beginPaint(s: Session, { paint }: ResolvedBrush, size: number): void {
  if (paint) bringPainting(s, size, [groundOf(paint, size)]);
  else s.painting = null;
}

/** Stripes for what smears, one colour for what takes away. */
function groundOf({ does, first, second }: NonNullable<ResolvedBrush['paint']>, size: number): Layer {
  const layer = newLayer('first', 'Layer 1');
  if (does !== 'smudge' && does !== 'erase') return layer;
  const [a, b] = [first, second].map(linearOf);
  const across = tilesAcross({ size });
  for (let tile = 0; tile < across * across; tile++) {
    const words = new Uint16Array(TILE_WORDS);
    for (let i = 0; i < TILE * TILE; i++) {
      const x = (tile % across) * TILE + (i % TILE);
      const y = Math.floor(tile / across) * TILE + (i >> 6);
      put(words, i * 4, does === 'erase' || Math.floor(((x + y) * STRIPES) / size) % 2 === 0 ? a : b);
    }
    layer.tiles.set(tile, words);
  }
  return layer;
}

const STRIPES = 9;

function put(words: Uint16Array, at: number, colour: Linear): void {
  for (let k = 0; k < 3; k++) words[at + k] = colour[k] * FULL;
  words[at + 3] = FULL;
}

/**
 * Lays what is painted over lit clay, lit alike. `side` is what the picture shows of the texture’s square, `flat` the
 * bytes of what is looked at where it lies flat.
 */
export function tint(
  out: { width: number; height: number; data: Uint8ClampedArray },
  painting: Painting,
  side: number,
  flat: readonly [number, number, number] = flatClay(),
): void {
  const texture = { size: painting.size, tiles: painting.layers[0].tiles };
  const by = (painting.size * side) / out.width;
  for (let j = 0; j < out.height; j++)
    for (let i = 0; i < out.width; i++) {
      const x = painting.size / 2 + (i + 0.5 - out.width / 2) * by;
      const y = painting.size / 2 + (j + 0.5 - out.height / 2) * by;
      const [r, g, b, alpha] = texelAt(texture, Math.floor(x), Math.floor(y));
      if (alpha === 0) continue;
      const at = (j * out.width + i) * 4;
      [r, g, b].forEach((c, k) => {
        const lit = c * 255 * (out.data[at + k] / flat[k]);
        out.data[at + k] = out.data[at + k] * (1 - alpha) + lit * alpha;
      });
    }
}

/** Bytes of flat clay, or of another ground, as it is lit. */
export function flatClay(lit?: Lit): readonly [number, number, number] {
  // The middle of three by three.
  const [r, g, b] = shade(newPicture(3, 3), 1, lit).subarray(16, 19);
  return [r, g, b];
}
