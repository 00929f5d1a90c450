/** For tests: a GLB whose one mesh is packed with Draco. */
import type { EncoderModule } from 'draco3d';

/** `bits` of each coordinate are kept. */
export function dracoGlb(
  encoder: EncoderModule,
  positions: Float32Array,
  triangles: Uint32Array,
  bits: number,
): { glb: ArrayBuffer; draco: Int8Array<ArrayBuffer> } {
  const draco = packed(encoder, positions, triangles, bits);
  const [min, max] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (const [i, value] of positions.entries()) {
    min[i % 3] = Math.min(min[i % 3], value);
    max[i % 3] = Math.max(max[i % 3], value);
  }
  const name = 'KHR_draco_mesh_compression';
  const json = JSON.stringify({
    asset: { version: '2.0' },
    extensionsUsed: [name],
    extensionsRequired: [name],
    buffers: [{ byteLength: draco.length }],
    bufferViews: [{ buffer: 0, byteLength: draco.length }],
    accessors: [
      { componentType: 5126, count: positions.length / 3, type: 'VEC3', min, max },
      { componentType: 5125, count: triangles.length, type: 'SCALAR' },
    ],
    meshes: [
      {
        primitives: [
          {
            attributes: { POSITION: 0 },
            indices: 1,
            extensions: { [name]: { bufferView: 0, attributes: { POSITION: 0 } } },
          },
        ],
      },
    ],
    nodes: [{ mesh: 0 }],
    scenes: [{ nodes: [0] }],
    scene: 0,
  });
  return { glb: glbOf(new TextEncoder().encode(json), new Uint8Array(draco.buffer)), draco };
}

function packed(
  module: EncoderModule,
  positions: Float32Array,
  triangles: Uint32Array,
  bits: number,
): Int8Array<ArrayBuffer> {
  const [encoder, builder, mesh, out] = [
    new module.Encoder(),
    new module.MeshBuilder(),
    new module.Mesh(),
    new module.DracoInt8Array(),
  ];
  builder.AddFacesToMesh(mesh, triangles.length / 3, triangles);
  builder.AddFloatAttribute(mesh, module.POSITION as unknown as number, positions.length / 3, 3, positions);
  encoder.SetAttributeQuantization(module.POSITION, bits);
  const length = encoder.EncodeMeshToDracoBuffer(mesh, out);
  const bytes = Int8Array.from({ length }, (_, i) => out.GetValue(i));
  for (const object of [out, mesh, builder, encoder]) module.destroy(object);
  return bytes;
}

/** Two chunks, each filled up to a multiple of four bytes. */
function glbOf(json: Uint8Array, binary: Uint8Array): ArrayBuffer {
  const chunks: [string, Uint8Array, number][] = [
    ['JSON', json, 0x20],
    ['BIN\0', binary, 0],
  ];
  const length = 12 + chunks.reduce((sum, [, bytes]) => sum + 8 + Math.ceil(bytes.length / 4) * 4, 0);
  const out = new Uint8Array(length);
  const view = new DataView(out.buffer);
  out.set(new TextEncoder().encode('glTF'));
  view.setUint32(4, 2, true);
  view.setUint32(8, length, true);
  let at = 12;
  for (const [kind, bytes, filler] of chunks) {
    const size = Math.ceil(bytes.length / 4) * 4;
    view.setUint32(at, size, true);
    out.set(new TextEncoder().encode(kind), at + 4);
    out.fill(filler, at + 8, at + 8 + size);
    out.set(bytes, at + 8);
    at += 8 + size;
  }
  return out.buffer;
}
