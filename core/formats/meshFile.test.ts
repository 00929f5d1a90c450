import type { RawMesh } from '#core/mesh';
import { checkMeshFile } from './index';

const corner: RawMesh = {
  positions: Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]),
  triangles: Uint32Array.from([0, 1, 2]),
};
const withPlaces = (...p: number[]): RawMesh => ({ ...corner, positions: Float32Array.from(p) });

test('a mesh as it should be passes', () => {
  expect(() => checkMeshFile(corner, 'cleat.obj')).not.toThrow();
});

test.each([
  ['nothing to see', { ...corner, triangles: new Uint32Array(0) }, 'cleat.obj holds no triangles'],
  [
    'a number that is none',
    withPlaces(0, 0, 0, 1, Number.NaN, 0, 0, 1, 0),
    'cleat.obj: vertex 2 of 3 is not a number; 1 such',
  ],
  [
    'a place without end',
    withPlaces(0, 0, 0, 1, 0, 0, 0, Infinity, -Infinity),
    'vertex 3 of 3 is not a number; 2 such',
  ],
  [
    'a vertex that isn’t there',
    { ...corner, triangles: Uint32Array.from([0, 1, 7]) },
    'triangle 1 names vertex 8 of 3',
  ],
] as const)('%s is named with its place', (_, mesh, sentence) => {
  expect(() => checkMeshFile(mesh, 'cleat.obj')).toThrow(sentence);
});
