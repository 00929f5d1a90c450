import { validateBytes } from 'gltf-validator';
import { Mesh, type BufferGeometry } from 'three';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { WebIO } from '@gltf-transform/core';
import { ball, body, paintableBody } from '#core/mesh';
import { filledLayer, Painting } from '#core/paint';
import { paintFile } from './paintFiles';
import { writeMeshes, type OutMesh } from './meshOut';

const THINGS: OutMesh[] = [
  { name: 'Trenail 1', mesh: body('bollard', 8), millimetres: 20, up: 'z' },
  { name: 'Mussel “north”', mesh: ball(6), millimetres: 3, up: 'z', colour: [0.2, 0.3, 0.5] },
];
const [first, second] = THINGS.map(({ mesh }) => mesh.triangles.length / 3) as [number, number];

/** Extents of a geometry from −x to x, and so on. */
function size(geometry: BufferGeometry): number[] {
  geometry.computeBoundingBox();
  const { min, max } = geometry.boundingBox!;
  return [max.x - min.x, max.y - min.y, max.z - min.z];
}
const near = (wanted: readonly number[]) => wanted.map((n) => expect.closeTo(n, 3) as number);
const faces = (geometry: BufferGeometry): number =>
  (geometry.index?.count ?? geometry.getAttribute('position').count) / 3;

test('GLB: sound by the validator, in metres with y up, with names and colours', async () => {
  const bytes = await writeMeshes('glb', THINGS);
  const report = await validateBytes(bytes);
  expect([report.issues.numErrors, report.issues.numWarnings]).toEqual([0, 0]);
  const { scene } = await new GLTFLoader().parseAsync(bytes.buffer, '');
  const meshes: Mesh[] = [];
  scene.traverse((object) => object instanceof Mesh && meshes.push(object as Mesh));
  expect(meshes.map((m) => faces(m.geometry))).toEqual([first, second]);
  expect(scene.children.map((child) => child.name.replace(/_/g, ' '))).toEqual(['Trenail 1', 'Mussel “north”']);
  expect(size(meshes[1]!.geometry)).toEqual(near([0.006, 0.006, 0.006]));
});

test('GLB and OBJ: cut at seams with coordinates, and GLB with its texture, sound by the validator', async () => {
  const painting = new Painting(512, [filledLayer('a', 512, [0.2, 0.4, 0.1])]);
  const texture = await paintFile('png8', { size: 512, tiles: painting.layers[0]!.tiles });
  const mesh = paintableBody('plank', 6);
  const thing: OutMesh = { name: 'Plank', mesh, millimetres: 50, up: 'y', texture };
  const bytes = await writeMeshes('glb', [thing]);
  const report = await validateBytes(bytes);
  expect([report.issues.numErrors, report.issues.numWarnings]).toEqual([0, 0]);
  const doc = await new WebIO().readBinary(bytes);
  expect(doc.getRoot().listTextures()[0]!.getImage()).toEqual(texture);
  const [primitive] = doc.getRoot().listMeshes()[0]!.listPrimitives();
  const [uv, indices] = [primitive!.getAttribute('TEXCOORD_0')!.getArray()!, primitive!.getIndices()!.getArray()!];
  const c = mesh.carried!.coordinates!;
  const off = [...indices].reduce(
    (most, v, i) => Math.max(most, Math.abs(uv[v * 2]! - c[i * 2]!), Math.abs(1 - uv[v * 2 + 1]! - c[i * 2 + 1]!)),
    0,
  );
  expect(off).toBeLessThan(1e-6);
  const text = new TextDecoder().decode(await writeMeshes('obj', [thing]));
  expect(text.match(/^vt /gm)!.length).toBe(uv.length / 2);
});

test('OBJ: groups by their names, millimetres', async () => {
  const text = new TextDecoder().decode(await writeMeshes('obj', THINGS));
  const group = new OBJLoader().parse(text);
  expect(group.children.map(({ name }) => name)).toEqual(['Trenail_1', 'Mussel_“north”']);
  const geometry = (group.children[1] as Mesh).geometry;
  expect(faces(geometry)).toBe(second);
  expect(size(geometry)).toEqual(near([6, 6, 6]));
});

test('STL and PLY: all of them in one, millimetres', async () => {
  const stl = new STLLoader().parse((await writeMeshes('stl', THINGS)).buffer);
  expect(faces(stl)).toBe(first + second);
  const ply = new PLYLoader().parse((await writeMeshes('ply', [THINGS[1]!])).buffer);
  expect(faces(ply)).toBe(second);
  expect(size(ply)).toEqual(near([6, 6, 6]));
});
