/** Reads mesh files, and looks at a mesh from above, away from the page. */
import * as Comlink from 'comlink';
import createDecoderModule from 'draco3d/draco_decoder_nodejs.js';
import { BufferAttribute, BufferGeometry, Mesh, type Object3D } from 'three';
import { OBJExporter } from 'three/examples/jsm/exporters/OBJExporter.js';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { MeshoptDecoder } from 'three/examples/jsm/libs/meshopt_decoder.module.js';
import { checkMeshFile, packMesh, readMesh } from '#core/formats';
import { weld, type RawMesh, type Welded } from '#core/mesh';
import { partHeights, type PartFromAbove } from '#core/piece';
import type { PartUp } from '#core/settings';
import { DecoderAway, DracoMeshes } from './draco';

const DRACO_WASM = new URL('../../node_modules/draco3d/draco_decoder.wasm', import.meta.url);

const draco = new DracoMeshes(async () => {
  const answer = await fetch(DRACO_WASM).catch(() => null);
  if (!answer?.ok)
    throw new DecoderAway(
      'what unpacks Draco can’t be fetched, since the server can’t be reached. Try again when it is back.',
    );
  return createDecoderModule({ wasmBinary: await answer.arrayBuffer() });
});

/** Meshes as they come from the format, without materials. */
async function geometries(ending: string, bytes: ArrayBuffer): Promise<BufferGeometry[]> {
  switch (ending) {
    case 'obj':
      return meshesOf(new OBJLoader().parse(facesOnly(new TextDecoder().decode(bytes))));
    case 'ply':
      return [new PLYLoader().parse(bytes)];
    case 'stl':
      return [new STLLoader().parse(bytes)];
    default:
      return meshesOf(
        (await new GLTFLoader().setMeshoptDecoder(MeshoptDecoder).setDRACOLoader(draco.asLoader).parseAsync(bytes, ''))
          .scene,
      );
  }
}

/** Without lines and points: an object that holds one of them would be taken for lines alone. */
function facesOnly(text: string): string {
  return /^\s*[lp]\s/m.test(text) ? text.replace(/^[ \t]*[lp][ \t].*$/gm, '') : text;
}

function meshesOf(scene: Object3D): BufferGeometry[] {
  const out: BufferGeometry[] = [];
  scene.updateMatrixWorld(true);
  scene.traverse((object) => {
    if (object instanceof Mesh) out.push((object.geometry as BufferGeometry).clone().applyMatrix4(object.matrixWorld));
  });
  return out;
}

function joined(parts: readonly BufferGeometry[]): RawMesh {
  let vertices = 0;
  let corners = 0;
  const usable = parts.filter((g) => g.getAttribute('position'));
  for (const g of usable) {
    vertices += g.getAttribute('position').count;
    corners += g.index ? g.index.count : g.getAttribute('position').count;
  }
  const out: RawMesh = {
    positions: new Float32Array(vertices * 3),
    triangles: new Uint32Array(corners - (corners % 3)),
  };
  let v = 0;
  let t = 0;
  for (const g of usable) {
    const from = g.getAttribute('position');
    const first = v;
    for (let i = 0; i < from.count; i++, v++) {
      out.positions[v * 3] = from.getX(i);
      out.positions[v * 3 + 1] = from.getY(i);
      out.positions[v * 3 + 2] = from.getZ(i);
    }
    const count = g.index ? g.index.count : from.count;
    for (let i = 0; i + 2 < count; i += 3)
      for (let k = 0; k < 3; k++) out.triangles[t++] = first + (g.index ? g.index.getX(i + k) : i + k);
  }
  return { positions: out.positions, triangles: out.triangles.slice(0, t) };
}

const api = {
  /** The mesh of a file as kept bytes. Throws a sentence that can be shown. */
  async read(name: string, bytes: ArrayBuffer): Promise<ArrayBuffer> {
    const ending = name.split('.').pop()!.toLowerCase();
    let parts: BufferGeometry[];
    try {
      parts = await geometries(ending, bytes);
    } catch (error) {
      if (error instanceof DecoderAway) throw new Error(`${name} can’t be read yet: ${error.message}`);
      throw new Error(
        `${name} can’t be read as ${ending.toUpperCase()}: it is broken, cut short or of another kind. OBJ, PLY, STL and GLB are taken.`,
      );
    }
    const mesh = joined(parts);
    checkMeshFile(mesh, name);
    const packed = packMesh(mesh);
    return Comlink.transfer(packed, [packed]);
  },

  /** A body to sculpt on: welded, in the middle, of the plain ball's size. Throws a sentence that can be shown. */
  weld(mesh: ArrayBuffer): { mesh: ArrayBuffer; triangles: number; report: Omit<Welded, 'mesh'> } {
    const { mesh: welded, ...report } = weld(readMesh(mesh));
    const packed = packMesh(welded);
    return Comlink.transfer({ mesh: packed, triangles: welded.triangles.length / 3, report }, [packed]);
  },

  obj(name: string, mesh: ArrayBuffer): Blob {
    const { positions, triangles } = readMesh(mesh);
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(positions, 3));
    geometry.setIndex(new BufferAttribute(triangles, 1));
    const object = new Mesh(geometry);
    object.name = name;
    return new Blob([new OBJExporter().parse(object)], { type: 'model/obj' });
  },

  fromAbove(mesh: ArrayBuffer, up: PartUp): PartFromAbove {
    const out = partHeights(readMesh(mesh), up);
    return Comlink.transfer(out, [out.heights.data.buffer as ArrayBuffer]);
  },
};

export type MeshFileWorker = typeof api;
Comlink.expose(api);
