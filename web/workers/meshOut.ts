/**
 * Meshes as files. OBJ, STL and PLY have no unit: one of theirs is a millimetre. glTF’s is the metre, and its up is y:
 * what stands with z up is turned for it.
 *
 * OBJ, STL and PLY by three’s exporters, GLB by glTF-Transform.
 */
import { Document, WebIO } from '@gltf-transform/core';
import { BufferAttribute, BufferGeometry, Group, Mesh } from 'three';
import { OBJExporter } from 'three/examples/jsm/exporters/OBJExporter.js';
import { PLYExporter } from 'three/examples/jsm/exporters/PLYExporter.js';
import { STLExporter } from 'three/examples/jsm/exporters/STLExporter.js';
import { cutAtSeams, faceNormal, type RawMesh } from '#core/mesh';

export const MESH_FILES = ['glb', 'obj', 'stl', 'ply'] as const;
export type MeshEnding = (typeof MESH_FILES)[number];

export interface OutMesh {
  name: string;
  mesh: RawMesh;
  /** Of one unit of the mesh. */
  millimetres: number;
  up: 'y' | 'z';
  /** Red, green and blue, 0–1, sRGB; none where it has no colour of its own. */
  colour?: readonly [number, number, number] | undefined;
  /** What is painted on it, as a PNG; a mesh with one has coordinates. Only GLB has room for it. */
  texture?: Uint8Array<ArrayBuffer> | undefined;
}

export async function writeMeshes(ending: MeshEnding, things: readonly OutMesh[]): Promise<Uint8Array<ArrayBuffer>> {
  switch (ending) {
    case 'glb':
      return glb(things);
    case 'obj':
      return text(new OBJExporter().parse(objects(things)));
    case 'stl': {
      const view = new STLExporter().parse(objects(things), { binary: true });
      return new Uint8Array(view.buffer as ArrayBuffer, view.byteOffset, view.byteLength).slice();
    }
    case 'ply': {
      // Answered at once where nobody is to be called, whatever the signature says.
      const nobody = undefined as unknown as () => void;
      const out = new PLYExporter().parse(objects(things), nobody, { binary: true, littleEndian: true });
      return new Uint8Array(out as unknown as ArrayBuffer);
    }
  }
}

const text = (of: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(of);

function objects(things: readonly OutMesh[]): Group {
  const out = new Group();
  for (const { name, mesh, millimetres } of things) {
    const geometry = new BufferGeometry();
    const { positions, triangles, coordinates } = cutAtSeams(mesh);
    geometry.setAttribute(
      'position',
      new BufferAttribute(
        positions.map((x) => x * millimetres),
        3,
      ),
    );
    if (coordinates) geometry.setAttribute('uv', new BufferAttribute(coordinates, 2));
    geometry.setIndex(new BufferAttribute(triangles, 1));
    const object = new Mesh(geometry);
    // Names are one word in an OBJ.
    object.name = name.trim().replace(/\s+/g, '_');
    out.add(object);
  }
  out.updateMatrixWorld(true);
  return out;
}

async function glb(things: readonly OutMesh[]): Promise<Uint8Array<ArrayBuffer>> {
  const doc = new Document();
  doc.getRoot().getAsset().generator = 'Mold Stamp';
  const buffer = doc.createBuffer();
  const scene = doc.createScene('Mold Stamp');
  doc.getRoot().setDefaultScene(scene);
  for (const { name, mesh, millimetres, up, colour, texture } of things) {
    const places = new Float32Array(mesh.positions.length);
    for (let v = 0; v < places.length; v += 3) {
      const scale = millimetres / 1000;
      places[v] = mesh.positions[v] * scale;
      places[v + 1] = mesh.positions[up === 'z' ? v + 2 : v + 1] * scale;
      places[v + 2] = up === 'z' ? -mesh.positions[v + 1] * scale : mesh.positions[v + 2] * scale;
    }
    const turned = { positions: places, triangles: mesh.triangles };
    const material = doc
      .createMaterial(name)
      .setRoughnessFactor(0.9)
      .setMetallicFactor(0)
      .setBaseColorFactor([...(texture ? WHITE : (colour ?? CLAY)).map(linear), 1] as [number, number, number, number]);
    if (texture)
      material.setBaseColorTexture(
        doc.createTexture(name).setImage(texture).setMimeType('image/png').setURI('texture.png'),
      );
    const { triangles, coordinates, from } = cutAtSeams(mesh);
    const normals = normalsOf(turned);
    const primitive = doc
      .createPrimitive()
      .setAttribute('POSITION', doc.createAccessor().setType('VEC3').setArray(taken(places, from)).setBuffer(buffer))
      .setAttribute('NORMAL', doc.createAccessor().setType('VEC3').setArray(taken(normals, from)).setBuffer(buffer))
      .setIndices(doc.createAccessor().setType('SCALAR').setArray(triangles.slice()).setBuffer(buffer))
      .setMaterial(material);
    if (coordinates)
      primitive.setAttribute(
        'TEXCOORD_0',
        // Its v runs down.
        doc
          .createAccessor()
          .setType('VEC2')
          .setArray(coordinates.map((x, i) => (i % 2 ? 1 - x : x)))
          .setBuffer(buffer),
      );
    scene.addChild(doc.createNode(name).setMesh(doc.createMesh(name).addPrimitive(primitive)));
  }
  return new Uint8Array(await new WebIO().writeBinary(doc));
}

const WHITE = [1, 1, 1] as const;
const CLAY = [0.78, 0.72, 0.66] as const;
const linear = (c: number): number => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4);

/** x, y, z of the vertices in that order; all of them where none is given. */
function taken(of: Float32Array, from: Uint32Array | null): Float32Array {
  if (!from) return of;
  const out = new Float32Array(from.length * 3);
  from.forEach((v, i) => out.set(of.subarray(v * 3, v * 3 + 3), i * 3));
  return out;
}

/** Weighed by the faces’ area; a vertex without a face of any area looks up. */
function normalsOf(mesh: RawMesh): Float32Array {
  const out = new Float32Array(mesh.positions.length);
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const normal = faceNormal(mesh, t);
    for (let k = 0; k < 9; k++) out[mesh.triangles[t * 3 + Math.floor(k / 3)] * 3 + (k % 3)] += normal[k % 3];
  }
  for (let v = 0; v < out.length; v += 3) {
    const long = Math.hypot(out[v], out[v + 1], out[v + 2]);
    if (long > 0) for (let k = 0; k < 3; k++) out[v + k] /= long;
    else out[v + 1] = 1;
  }
  return out;
}
