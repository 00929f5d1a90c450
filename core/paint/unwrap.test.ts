import * as watlas from 'watlas';
import { ball, buildMesh, body, type RawMesh } from '#core/mesh';
import { atlas, DIRECT_FACES, eachTexel, unwrap, type UnwrapKit } from './index';

beforeAll(() => watlas.Initialize());
const kit = watlas as unknown as UnwrapKit;

/** How much of the square is covered, and how much of that twice. */
function covered(raw: RawMesh, coordinates: Float32Array, size = 512): { share: number; twice: number } {
  const on = atlas(buildMesh({ ...raw, carried: { coordinates, groups: null } }), coordinates, size);
  const seen = new Uint8Array(size * size);
  for (let t = 0; t < raw.triangles.length / 3; t++) eachTexel(on, t, (x, y) => seen[y * size + x]!++);
  const met = seen.filter((n) => n > 0).length;
  return { share: met / size ** 2, twice: seen.filter((n) => n > 1).length / met };
}

test('a light mesh is unwrapped as it is: inside the square, nothing over another, most of it used', async () => {
  const raw = body('stone', 14);
  const { coordinates, charts } = await unwrap(kit, raw);
  expect(coordinates.length).toBe(raw.triangles.length * 2);
  expect(charts).toBeLessThan(60);
  const { share, twice } = covered(raw, coordinates);
  expect(share).toBeGreaterThan(0.4);
  expect(twice).toBeLessThan(0.002);
});

test('a dense one takes the charts of a light copy, with next to nothing over another', async () => {
  const raw = ball(44);
  expect(raw.triangles.length / 3).toBeGreaterThan(DIRECT_FACES);
  const told: string[] = [];
  const { coordinates, charts } = await unwrap(kit, raw, (what) => told.push(what));
  expect([...new Set(told)]).toEqual(['making a light copy', 'unwrapping', 'carrying over']);
  expect(charts).toBeLessThan(120);
  expect(coordinates.every((x) => x >= 0 && x <= 1)).toBe(true);
  const { share, twice } = covered(raw, coordinates);
  expect(share).toBeGreaterThan(0.35);
  expect(twice).toBeLessThan(0.02);
});
