import { BufferAttribute, BufferGeometry, Mesh } from 'three';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { joinedMesh, type FilePart } from './joinedMesh';

function part(name: string, more: { index?: number[]; uv?: number[]; materials?: string[] } = {}): FilePart {
  const geometry = new BufferGeometry();
  const places = more.index ? [0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0] : [0, 0, 0, 1, 0, 0, 0, 1, 0];
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(places), 3));
  if (more.index) geometry.setIndex(more.index);
  if (more.uv) geometry.setAttribute('uv', new BufferAttribute(Float32Array.from(more.uv), 2));
  return { geometry, name, materials: more.materials ?? [] };
}

test('parts follow each other: triangles name their own vertices, each is a group, one without a map lies at 0', () => {
  const mesh = joinedMesh([part('lid'), part('pot', { index: [0, 1, 2, 0, 2, 3], uv: [0, 0, 1, 0, 1, 1, 0, 1] })]);
  expect(Array.from(mesh.triangles)).toEqual([0, 1, 2, 3, 4, 5, 3, 5, 6]);
  expect(mesh.carried!.groups).toEqual({ names: ['lid', 'pot'], of: Uint16Array.from([0, 1, 1]) });
  expect(Array.from(mesh.carried!.coordinates!)).toEqual([0, 0, 0, 0, 0, 0, 0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1]);
});

test('one plain part carries nothing; corners beyond the last whole triangle are left out', () => {
  expect(joinedMesh([part('lid')]).carried).toBeUndefined();
  expect(joinedMesh([part('lid', { index: [0, 1, 2, 3] })]).triangles).toHaveLength(3);
  expect(joinedMesh([]).triangles).toHaveLength(0);
});

test('an OBJ of two materials with a seam: a group each, and the corner at the seam has its coordinates on both sides', () => {
  const text = [
    'o cleat',
    ...['v 0 0 0', 'v 1 0 0', 'v 1 1 0', 'v 0 1 0'],
    ...['vt 0 0', 'vt 0.5 0', 'vt 0.5 0.5', 'vt 0.9 0.1'],
    'usemtl iron',
    'f 1/1 2/2 3/3',
    'usemtl rust',
    'f 1/4 3/3 4/1',
  ].join('\n');
  const parts: FilePart[] = [];
  new OBJLoader().parse(text).traverse((object) => {
    if (object instanceof Mesh)
      parts.push({
        geometry: object.geometry as BufferGeometry,
        name: object.name,
        materials: [object.material].flat().map(({ name }: { name: string }) => name),
      });
  });
  const { carried } = joinedMesh(parts);
  expect(Array.from(carried!.groups!.of, (g) => carried!.groups!.names[g])).toEqual(['cleat, iron', 'cleat, rust']);
  const corners = Array.from(carried!.coordinates!, (x) => Math.round(x * 10) / 10);
  expect(corners).toEqual([0, 0, 0.5, 0, 0.5, 0.5, 0.9, 0.1, 0.5, 0.5, 0, 0]);
});
