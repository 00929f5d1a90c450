import { packMesh, readMesh } from '#core/formats';
import { buildMesh, cutAtSeams, plane, refine, seamVertices, subdivide, weld, type RawMesh } from './index';

/** A tile in two groups with a seam down its middle; on each side the coordinates are a straight map of the place. */
const GROUPS = ['left', 'right'];
const mapped = (group: number, x: number, y: number): readonly [number, number] =>
  group === 0 ? [x * 0.25, y * 0.25 - 0.1 * x] : [0.6 - y * 0.2, x * 0.3];

function tile(cells = 12): RawMesh {
  const { positions, triangles } = plane(cells, 2);
  const of = Uint16Array.from({ length: triangles.length / 3 }, (_, t) =>
    Math.max(...[0, 1, 2].map((k) => positions[triangles[t * 3 + k] * 3])) > 1e-6 ? 1 : 0,
  );
  const coordinates = Float32Array.from(
    Array.from(triangles).flatMap((v, corner) =>
      mapped(of[Math.floor(corner / 3)], positions[v * 3], positions[v * 3 + 1]),
    ),
  );
  return { positions, triangles, carried: { coordinates, groups: { names: GROUPS, of } } };
}

/** How far the worst corner lies from where its place on the tile is mapped to. */
function farthest({ positions: p, triangles, carried }: RawMesh, scale = 1): number {
  const { coordinates, groups } = carried!;
  let worst = 0;
  for (let corner = 0; corner < triangles.length; corner++) {
    const v = triangles[corner];
    const [x, y] = mapped(groups!.of[Math.floor(corner / 3)], p[v * 3] * scale, p[v * 3 + 1] * scale);
    worst = Math.max(worst, Math.abs(coordinates![corner * 2] - x), Math.abs(coordinates![corner * 2 + 1] - y));
  }
  return worst;
}

/** Vertices where the seam runs, and those that lie on the tile's middle line. */
function onSeam({ positions: p, triangles, carried }: RawMesh): { seam: number[]; middle: number[] } {
  const vertices = Array.from({ length: p.length / 3 }, (_, v) => v);
  const marks = seamVertices(triangles, vertices.length, carried);
  return { seam: vertices.filter((v) => marks[v]), middle: vertices.filter((v) => Math.abs(p[v * 3]) < 1e-6) };
}

const everywhere = (): boolean => true;
const refined = (mesh: RawMesh, edge: number): RawMesh =>
  refine(mesh, { places: [], values: [] }, { edge, inside: everywhere, most: 1e6 }).mesh;

test.each([
  ['finer', 0.06],
  ['coarser', 0.5],
])('%s clay: every corner is where its place is mapped to, and the seam runs where it ran', (_, edge) => {
  const mesh = refined(tile(), edge);
  expect(mesh.triangles.length).not.toBe(tile().triangles.length);
  expect(mesh.carried!.coordinates).toHaveLength(mesh.triangles.length * 2);
  expect(farthest(mesh)).toBeLessThan(1e-6);
  const { seam, middle } = onSeam(mesh);
  expect(seam.length).toBeGreaterThan(10);
  expect(seam).toEqual(middle);
});

test('read, welded, twice subdivided, refined and back: groups, coordinates and the seam are those that came', () => {
  const { mesh: welded } = weld(readMesh(packMesh(tile())));
  expect(farthest(welded)).toBeLessThan(1e-6);
  const twice = subdivide(subdivide(welded));
  expect(twice.triangles.length).toBe(welded.triangles.length * 16);
  const back = readMesh(packMesh(refined(twice, 0.02)));
  expect(back.carried!.groups!.names).toEqual(GROUPS);
  const { seam, middle } = onSeam(back);
  expect(seam.length).toBeGreaterThan(48);
  expect(seam).toEqual(middle);
  // Subdividing moves points beside the tile's border by a little; between them the map stays straight.
  expect(farthest(back)).toBeLessThan(0.02);
});

test('subdividing cuts a triangle’s coordinates into four at the middle of its sides', () => {
  const raw: RawMesh = {
    positions: Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]),
    triangles: Uint32Array.from([0, 1, 2]),
    carried: { coordinates: Float32Array.from([0, 0, 1, 0, 0, 1]), groups: null },
  };
  expect(Array.from(subdivide(raw).carried!.coordinates!)).toEqual(
    [
      [0, 0, 0.5, 0, 0, 0.5],
      [0.5, 0, 1, 0, 0.5, 0.5],
      [0, 0.5, 0.5, 0.5, 0, 1],
      [0.5, 0, 0.5, 0.5, 0, 0.5],
    ].flat(),
  );
});

test('laid into a room every triangle keeps its own, whatever the order', () => {
  const raw = tile();
  const { positions, triangles, carried } = buildMesh(raw);
  expect(farthest({ positions, triangles, carried })).toBeLessThan(1e-6);
});

test('cut open a seam has its vertices twice, welded again once', () => {
  const raw = tile(6);
  const { positions, triangles, coordinates } = cutAtSeams(raw);
  expect(positions.length / 3).toBe(raw.positions.length / 3 + 7);
  Array.from(triangles).forEach((v, corner) => {
    expect(coordinates!.slice(v * 2, v * 2 + 2)).toEqual(raw.carried!.coordinates!.slice(corner * 2, corner * 2 + 2));
  });
  expect(weld({ positions, triangles }).mesh.positions.length).toBe(raw.positions.length);
  expect(cutAtSeams({ ...raw, carried: { coordinates: null, groups: null } }).positions).toBe(raw.positions);
});

test('values go along with what is split and joined, halfway between their neighbours', () => {
  const { positions, triangles } = plane(8, 2);
  const slope = Float32Array.from({ length: positions.length / 3 }, (_, v) => positions[v * 3] * 0.5 + 0.5);
  const { mesh, along } = refine(
    { positions, triangles },
    { places: [], values: [slope] },
    { edge: 0.1, inside: everywhere, most: 1e6 },
  );
  expect(along.values[0]).toHaveLength(mesh.positions.length / 3);
  along.values[0].forEach((value, v) => expect(value).toBeCloseTo(mesh.positions[v * 3] * 0.5 + 0.5, 5));
});

test.each([
  ['too few coordinates', { coordinates: new Float32Array(5), groups: null }, 'texture coordinates, found 5'],
  ['a coordinate that is none', { coordinates: new Float32Array(6).fill(NaN), groups: null }, 'is not a number'],
  ['groups of another mesh', { coordinates: null, groups: { names: ['a'], of: new Uint16Array(2) } }, 'found 2'],
  [
    'a group without a name',
    { coordinates: null, groups: { names: ['a'], of: Uint16Array.from([1]) } },
    'group 1 of 1',
  ],
])('%s are refused with a sentence', (_, carried, sentence) => {
  const positions = Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]);
  expect(() => buildMesh({ positions, triangles: Uint32Array.from([0, 1, 2]), carried })).toThrow(sentence);
});
