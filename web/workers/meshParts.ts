/** The meshes that a file holds: OBJ, PLY, STL or GLB, read by the loaders of three.js. */
import { ColorManagement, Matrix4, Mesh, type BufferGeometry, type Material, type Object3D } from 'three';
import type { DRACOLoader } from 'three/examples/jsm/loaders/DRACOLoader.js';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { MeshoptDecoder } from 'three/examples/jsm/libs/meshopt_decoder.module.js';
import type { FilePart } from './joinedMesh';

/** Colours as the file has them: turned into linear light in 8 bits, dark ones would be lost. */
ColorManagement.enabled = false;

/** Meshes as they come from the format; of materials the names alone. */
export async function partsOf(ending: string, bytes: ArrayBuffer, draco: DRACOLoader): Promise<FilePart[]> {
  switch (ending) {
    case 'obj':
      return meshesOf(new OBJLoader().parse(facesOnly(new TextDecoder().decode(bytes))));
    case 'ply':
      return [alone(facesOf(new PLYLoader().parse(bytes)))];
    case 'stl':
      return [alone(new STLLoader().parse(bytes))];
    default:
      return meshesOf(
        (await new GLTFLoader().setMeshoptDecoder(MeshoptDecoder).setDRACOLoader(draco).parseAsync(bytes, '')).scene,
        true,
      );
  }
}

/** Without lines and points: an object that holds one of them would be taken for lines alone. */
function facesOnly(text: string): string {
  return /^\s*[lp]\s/m.test(text) ? text.replace(/^[ \t]*[lp][ \t].*$/gm, '') : text;
}

/** Of points alone there are no faces: each three of them would be taken for one. */
function facesOf(geometry: BufferGeometry): BufferGeometry {
  return geometry.index ? geometry : geometry.setIndex([]);
}

function alone(geometry: BufferGeometry): FilePart {
  return { geometry, name: '', materials: [] };
}

const RESTING = new Matrix4();

function meshesOf(scene: Object3D, linear = false): FilePart[] {
  const out: FilePart[] = [];
  scene.updateMatrixWorld(true);
  scene.traverse((object) => {
    if (!(object instanceof Mesh)) return;
    const own = object.geometry as BufferGeometry;
    const geometry = object.matrixWorld.equals(RESTING) ? own : own.clone().applyMatrix4(object.matrixWorld);
    const materials = [object.material as Material | Material[]].flat().map(({ name }) => name);
    out.push({ geometry, name: object.name || (materials[0] ?? ''), materials, linear });
  });
  return out;
}
