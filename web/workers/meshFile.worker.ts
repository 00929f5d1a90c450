/** Reads mesh files, and looks at a mesh from above, away from the page. */
import * as Comlink from 'comlink';
import createDecoderModule from 'draco3d/draco_decoder_nodejs.js';
import { BufferAttribute, BufferGeometry, Group, Mesh } from 'three';
import { OBJExporter } from 'three/examples/jsm/exporters/OBJExporter.js';
import { checkMeshFile, packMesh, readMesh } from '#core/formats';
import { centred, cutAtSeams, weld, type RawMesh, type Welded } from '#core/mesh';
import { withoutBroken } from '#core/scan';
import { partHeights, type PartFromAbove } from '#core/setForm';
import type { PartUp } from '#core/settings';
import { DecoderAway, DracoMeshes } from './draco';
import { joinedMesh, type FilePart } from './joinedMesh';
import { partsOf } from './meshParts';

const DRACO_WASM = new URL('../../node_modules/draco3d/draco_decoder.wasm', import.meta.url);

const draco = new DracoMeshes(async () => {
  const answer = await fetch(DRACO_WASM).catch(() => null);
  if (!answer?.ok)
    throw new DecoderAway(
      'what unpacks Draco can’t be fetched, since the server can’t be reached. Try again when it is back.',
    );
  return createDecoderModule({ wasmBinary: await answer.arrayBuffer() });
});

/** One object a group, cut open at the seams. */
function objectsOf(name: string, mesh: RawMesh): Group {
  const { positions, triangles, coordinates } = cutAtSeams(mesh);
  const groups = mesh.carried?.groups;
  const out = new Group();
  for (const [number, group] of (groups?.names ?? [name]).entries()) {
    const own = groups ? triangles.filter((_, corner) => groups.of[Math.floor(corner / 3)] === number) : triangles;
    if (own.length === 0) continue;
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(positions, 3));
    if (coordinates) geometry.setAttribute('uv', new BufferAttribute(coordinates, 2));
    geometry.setIndex(new BufferAttribute(own, 1));
    const object = new Mesh(geometry);
    object.name = group || name;
    out.add(object);
  }
  return out;
}

const endingOf = (name: string): string => name.split('.').pop()!.toLowerCase();

async function meshIn(name: string, bytes: ArrayBuffer): Promise<RawMesh> {
  const ending = endingOf(name);
  let parts: FilePart[];
  try {
    parts = await partsOf(ending, bytes, draco.asLoader);
  } catch (error) {
    if (error instanceof DecoderAway) throw new Error(`${name} can’t be read yet: ${error.message}`);
    throw new Error(
      `${name} can’t be read as ${ending.toUpperCase()}: it is broken, cut short or of another kind. OBJ, PLY, STL and GLB can be opened.`,
    );
  }
  return joinedMesh(parts);
}

/** A scan that was read, and what was found on the way. */
export interface ReadScan {
  /** As core/formats packs it. */
  mesh: ArrayBuffer;
  vertices: number;
  triangles: number;
  coloured: boolean;
  /** Vertices that lay where another did. */
  merged: number;
  /** Triangles that named a broken vertex. */
  broken: number;
  /** Units of the file in one body unit. */
  perBody: number;
  ending: string;
}

const api = {
  /** The mesh of a file as kept bytes. Throws a sentence that can be shown. */
  async read(
    name: string,
    bytes: ArrayBuffer,
    onProgress: (share: number, what: string) => void,
  ): Promise<ArrayBuffer> {
    onProgress(0.05, 'Reading the file');
    const mesh = await meshIn(name, bytes);
    checkMeshFile(mesh, name);
    onProgress(0.6, 'Packing');
    const packed = packMesh(mesh);
    return Comlink.transfer(packed, [packed]);
  },

  /**
   * A scan as it is kept: what is broken left out, twins welded, in the middle and of a body's size. Throws a sentence
   * that can be shown.
   */
  async scan(name: string, bytes: ArrayBuffer, onProgress: (share: number, what: string) => void): Promise<ReadScan> {
    onProgress(0.05, 'Reading the file');
    const { mesh: sound, broken } = withoutBroken(await meshIn(name, bytes));
    checkMeshFile(sound, name);
    onProgress(0.55, 'Welding');
    const { mesh, merged, perBody } = centred(sound, 0);
    onProgress(0.85, 'Packing');
    const packed = packMesh(mesh);
    const facts = {
      vertices: mesh.positions.length / 3,
      triangles: mesh.triangles.length / 3,
      coloured: mesh.colours !== undefined,
      merged,
      broken,
      perBody,
      ending: endingOf(name),
    };
    return Comlink.transfer({ mesh: packed, ...facts }, [packed]);
  },

  /** A body to sculpt on: welded, in the middle, of the plain ball's size. Throws a sentence that can be shown. */
  weld(mesh: ArrayBuffer): { mesh: ArrayBuffer; triangles: number; report: Omit<Welded, 'mesh'> } {
    const { mesh: welded, ...report } = weld(readMesh(mesh));
    const packed = packMesh(welded);
    return Comlink.transfer({ mesh: packed, triangles: welded.triangles.length / 3, report }, [packed]);
  },

  obj(name: string, mesh: ArrayBuffer): Blob {
    return new Blob([new OBJExporter().parse(objectsOf(name, readMesh(mesh)))], { type: 'model/obj' });
  },

  fromAbove(mesh: ArrayBuffer, up: PartUp): PartFromAbove {
    const out = partHeights(readMesh(mesh), up);
    return Comlink.transfer(out, [out.heights.data.buffer as ArrayBuffer]);
  },
};

export type MeshFileWorker = typeof api;
// Readers remark on what is broken; what comes of it is said in the answer.
console.error = () => undefined;
Comlink.expose(api);
