/**
 * Meshes packed with Draco, for the GLB reader of three.js: its own decoder starts workers from text, which the page's
 * policy forbids.
 */
import type { DecoderModule } from 'draco3d';
import { BufferAttribute, BufferGeometry } from 'three';
import type { DRACOLoader } from 'three/examples/jsm/loaders/DRACOLoader.js';

/** More points than this is no mesh that can be sculpted on, and more than the decoder's memory holds. */
const MOST_POINTS = 20_000_000;

/** Nothing is wrong with the file: what unpacks it isn't there. */
export class DecoderAway extends Error {}

/** What the GLB reader asks of its loader, kept to positions and triangles: the rest isn't used. */
export class DracoMeshes {
  private module: Promise<DecoderModule> | null = null;

  constructor(private readonly load: () => Promise<DecoderModule>) {}

  /** This, typed as the reader wants it. */
  get asLoader(): DRACOLoader {
    return this as unknown as DRACOLoader;
  }

  preload(): this {
    return this;
  }

  /** Called by the GLB reader, with the file's number of each of the mesh's attributes. */
  async decodeDracoFile(
    packed: ArrayBuffer,
    done: (geometry: BufferGeometry) => void,
    ids: { position?: number },
    _types: unknown,
    _space: unknown,
    failed: (error: unknown) => void,
  ): Promise<void> {
    try {
      this.module ??= this.load().catch((error: unknown) => {
        this.module = null;
        throw error;
      });
      done(unpacked(await this.module, new Int8Array(packed), ids.position));
    } catch (error) {
      failed(error);
    }
  }
}

function unpacked(draco: DecoderModule, packed: Int8Array, positionId: number | undefined): BufferGeometry {
  const decoder = new draco.Decoder();
  const source = new draco.DecoderBuffer();
  const mesh = new draco.Mesh();
  try {
    source.Init(packed, packed.byteLength);
    if (decoder.GetEncodedGeometryType(source) !== draco.TRIANGULAR_MESH) throw new Error('Not a mesh of triangles.');
    const status = decoder.DecodeBufferToMesh(source, mesh);
    if (!status.ok()) throw new Error(status.error_msg());
    if (positionId === undefined) throw new Error('No positions.');
    const points = mesh.num_points();
    const faces = mesh.num_faces();
    if (points > MOST_POINTS || faces > MOST_POINTS) throw new Error('Too many points.');
    const position = decoder.GetAttributeByUniqueId(mesh, positionId);
    if (position.num_components() !== 3) throw new Error('No positions.');
    return new BufferGeometry()
      .setAttribute(
        'position',
        new BufferAttribute(
          new Float32Array(
            filled(draco, points * 12, (bytes, at) => {
              decoder.GetAttributeDataArrayForAllPoints(mesh, position, draco.DT_FLOAT32, bytes, at);
            }),
          ),
          3,
        ),
      )
      .setIndex(
        new BufferAttribute(
          new Uint32Array(filled(draco, faces * 12, (bytes, at) => decoder.GetTrianglesUInt32Array(mesh, bytes, at))),
          1,
        ),
      );
  } finally {
    draco.destroy(mesh);
    draco.destroy(source);
    draco.destroy(decoder);
  }
}

/** Bytes that the decoder writes into its own memory, copied out of it. */
function filled(draco: DecoderModule, bytes: number, fill: (bytes: number, at: number) => void): ArrayBuffer {
  const at = draco._malloc(bytes);
  try {
    fill(bytes, at);
    return draco.HEAPU8.slice(at, at + bytes).buffer;
  } finally {
    draco._free(at);
  }
}
