import { falloffTable } from '#core/falloff';
import { ball, boxCoordinates, boxUnwrap, buildMesh } from '#core/mesh';
import { FalloffSchema } from '#core/settings';
import {
  atlas,
  carriedPaint,
  filledLayer,
  FULL,
  newLayer,
  PaintStroke,
  Places,
  PLAIN_FORM,
  type Layer,
  type Tiles,
} from './index';

const CELLS = 10;
const SIZE = 512;
const RAW = ball(CELLS);
const FROM = boxCoordinates(CELLS, CELLS, CELLS);
const TO = boxUnwrap(RAW);
const FRAME = { origin: [0, 0, 1], normal: [0, 0, 1], tangent: [1, 0, 0], bitangent: [0, 1, 0], radius: 0.7 } as const;
const FORM = { ...PLAIN_FORM, falloff: falloffTable(FalloffSchema.parse({ kind: 'dome' })) };

function painted(coordinates: Float32Array): Tiles {
  const mesh = buildMesh({ ...RAW, carried: { coordinates, groups: null } });
  const on = { size: SIZE, tiles: new Map<number, Uint16Array>() };
  const places = new Places(atlas(mesh, mesh.carried!.coordinates, SIZE));
  new PaintStroke(on, places, { overlaps: 'even', opacity: 1 }).dab(FRAME, FORM, [0.8, 0.2, 0.1], 1, new Set());
  return on.tiles;
}

test('what was painted looks as if it had been painted by the new coordinates', () => {
  const layers: Layer[] = [{ ...newLayer('a', 'A'), tiles: painted(FROM), mask: painted(FROM) }];
  const shares: number[] = [];
  const [one] = carriedPaint({ mesh: RAW, from: FROM, to: TO, size: SIZE, layers }, (share) => shares.push(share));
  const wanted = painted(TO);
  let [sum, count] = [0, 0];
  for (const tile of new Set([...wanted.keys(), ...one!.tiles.keys()])) {
    const [a, b] = [wanted.get(tile), one!.tiles.get(tile)];
    for (let i = 3; i < SIZE; i += 4) {
      sum += Math.abs((a?.[i] ?? 0) - (b?.[i] ?? 0)) / FULL;
      count++;
    }
    if (b) expect(one!.mask!.get(tile)).toEqual(b);
  }
  expect(count).toBeGreaterThan(1000);
  expect(sum / count).toBeLessThan(0.01);
  expect(shares.every((share, i) => share < 1 && share >= (shares[i - 1] ?? 0))).toBe(true);
});

test('a layer of one colour stays one tile, and an empty one empty', () => {
  const ground = filledLayer('g', SIZE, [0.3, 0.3, 0.3]);
  const [flat, empty] = carriedPaint({
    mesh: RAW,
    from: FROM,
    to: TO,
    size: SIZE,
    layers: [ground, newLayer('e', 'E')],
  });
  expect(new Set(flat!.tiles.values()).size).toBe(1);
  expect(flat!.tiles.size).toBe((SIZE / 64) ** 2);
  expect(empty!.tiles.size).toBe(0);
});
