/** What is written is read by an independent reader, Assimp, and by our own, and is the same. */
import assimpjs from 'assimpjs';
import { ball, body, type RawMesh } from '#core/mesh';
import { block, volumeOf } from '#core/part';
import { MESH_FILES, writeMeshes, type MeshEnding, type OutMesh } from './meshOut';
import { joinedMesh } from './joinedMesh';
import { partsOf } from './meshParts';

interface Node {
  name: string;
  transformation: number[];
  meshes?: number[];
  children?: Node[];
}
interface Scene {
  meshes: { name: string; vertices: number[]; faces: number[][] }[];
  rootnode: Node;
}

const THINGS: OutMesh[] = [
  { name: 'Bollard', mesh: body('bollard', 8), millimetres: 50, up: 'y' },
  { name: 'Trenail', mesh: block([1, 2, 3], [4, 5, 6]), millimetres: 50, up: 'y', colour: [0.2, 0.3, 0.5] },
  { name: 'Cork float', mesh: ball(6), millimetres: 50, up: 'y' },
];
const reader = assimpjs();
/** None of our files is packed by it. */
const NO_DRACO = null as never;

/** Every mesh of the file where it stands. */
async function read(ending: MeshEnding, bytes: Uint8Array): Promise<{ names: string[]; whole: RawMesh }> {
  const kit = await reader;
  const files = new kit.FileList();
  files.AddFile(`thing.${ending}`, bytes);
  const result = kit.ConvertFileList(files, 'assjson');
  if (!result.IsSuccess()) throw new Error(result.GetErrorCode());
  const scene = JSON.parse(new TextDecoder().decode(result.GetFile(0).GetContent())) as Scene;
  const positions: number[] = [];
  const triangles: number[] = [];
  const names: string[] = [];
  const visit = ({ name, meshes = [], children = [] }: Node): void => {
    for (const at of meshes) {
      const { vertices, faces } = scene.meshes[at]!;
      names.push(name);
      for (const face of faces) {
        expect(face).toHaveLength(3);
        triangles.push(...face.map((v) => v + positions.length / 3));
      }
      positions.push(...vertices);
    }
    children.forEach(visit);
  };
  visit(scene.rootnode);
  return { names, whole: { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) } };
}

const faces = THINGS.reduce((sum, { mesh }) => sum + mesh.triangles.length / 3, 0);
/** Of all of them, cubic millimetres. */
const volume = THINGS.reduce((sum, { mesh }) => sum + volumeOf(mesh), 0) * 50 ** 3;
const span = ({ positions }: RawMesh): number[] =>
  [0, 1, 2].map((k) => {
    const own = positions.filter((_, i) => i % 3 === k);
    return own.reduce((a, b) => Math.max(a, b), -Infinity) - own.reduce((a, b) => Math.min(a, b), Infinity);
  });
const all: RawMesh = {
  positions: Float32Array.from(THINGS.flatMap(({ mesh }) => [...mesh.positions])),
  triangles: new Uint32Array(),
};

test.each(MESH_FILES)('%s: every face where it was, in millimetres, by Assimp and by us', async (ending) => {
  const bytes = await writeMeshes(ending, THINGS);
  const { names, whole } = await read(ending, bytes.slice());
  // glTF's unit is the metre.
  const unit = ending === 'glb' ? 1000 : 1;
  expect(whole.triangles.length / 3).toBe(faces);
  expect(volumeOf(whole) * unit ** 3).toBeCloseTo(volume, -1);
  span(all).forEach((wide, k) => expect(span(whole)[k]! * unit).toBeCloseTo(wide * 50, 1));
  if (ending === 'glb' || ending === 'obj')
    expect(names.map((name) => name.replace('_', ' '))).toEqual(THINGS.map(({ name }) => name));
  const own = joinedMesh(await partsOf(ending, bytes.buffer, NO_DRACO));
  expect(own.triangles.length / 3).toBe(faces);
  expect(volumeOf(own) * unit ** 3).toBeCloseTo(volume, -1);
});
