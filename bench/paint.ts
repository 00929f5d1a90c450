/** paint_ns_per_texel and paint_growth: one dab of paint over many texels, beside a plain fill of as many. */
import type { DabFrame } from '#core/brush';
import { falloffTable } from '#core/falloff';
import { ball, boxCoordinates, buildMesh } from '#core/mesh';
import {
  atlas,
  FULL,
  PaintStroke,
  Places,
  PLAIN_FORM,
  texture,
  tileAt,
  touchTile,
  wordAt,
  type PaintForm,
} from '#core/paint';
import { FalloffSchema } from '#core/settings';
import { median, type Figure } from './measure';

const CELLS = 64;
const FORM: PaintForm = {
  ...PLAIN_FORM,
  falloff: falloffTable(FalloffSchema.parse({ kind: 'dome' })),
};
const frame = (radius: number): DabFrame => ({
  origin: [0, 0, 1],
  normal: [0, 0, 1],
  tangent: [1, 0, 0],
  bitangent: [0, 1, 0],
  radius,
});

/** Nanoseconds a texel of a dab, and how many texels it met. */
function painted(size: number, radius: number): { ns: number; texels: number; tiles: number } {
  const coordinates = boxCoordinates(CELLS, CELLS, CELLS);
  const places = new Places(
    atlas(buildMesh({ ...ball(CELLS), carried: { coordinates, groups: null } }), coordinates, size),
  );
  const taken: number[] = [];
  let [texels, tiles] = [0, 0];
  for (let n = 0; n < 5; n++) {
    const clay = texture(size);
    const stroke = new PaintStroke(clay, places, { overlaps: 'add', opacity: 1 });
    const began = performance.now();
    const changed = new Set<number>();
    stroke.dab(frame(radius), FORM, [0.5, 0.3, 0.2], 0.5, changed);
    tiles = changed.size;
    taken.push(performance.now() - began);
    texels = 0;
    for (const words of clay.tiles.values()) for (let i = 3; i < words.length; i += 4) if (words[i] > 0) texels++;
  }
  return { ns: (median(taken) * 1e6) / texels, texels, tiles };
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

export function paintFigures(): Figure[] {
  const large = painted(4096, 0.32);
  const fill = filled(4096, large.texels);
  // The same count of texels on a texture of a quarter and of four times the side.
  const small = painted(2048, 0.32);
  const huge = painted(8192, 0.08);
  return [
    {
      key: 'paint_ns_per_texel',
      what: `one dab over ${Math.round(large.texels / 1000)} k texels of 4096² on a ball of ${CELLS} cells a side, its tiles made on the way`,
      value: large.ns,
      unit: 'ns',
      floor: { what: 'a plain fill of as many', value: fill },
      target: { text: '≤ 40', met: large.ns <= 40 },
    },
    {
      key: 'paint_growth',
      what: `a texel of 8192² (${Math.round(huge.texels / 1000)} k of them) over one of 2048² (${Math.round(small.texels / 1000)} k)`,
      value: huge.ns / small.ns,
      unit: '×',
      floor: { what: 'no growth', value: 1 },
      target: { text: '≤ 1.25', met: huge.ns / small.ns <= 1.25 },
    },
  ];
}
