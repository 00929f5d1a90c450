/**
 * A body with its texture on it. The card knows one coordinate a vertex, a mesh one a corner: triangles that a seam
 * parts from the others at a vertex are drawn apart, with corners of their own that follow the mesh.
 */
import {
  BufferAttribute,
  BufferGeometry,
  DataTexture,
  LinearFilter,
  LinearMipmapLinearFilter,
  Mesh as ThreeMesh,
  RGBAFormat,
  SRGBColorSpace,
  UnsignedByteType,
  Vector2,
  type ShaderMaterial,
  type WebGLRenderer,
} from 'three';
import type { MeshArrays } from '#core/mesh';
import { TILE, TILE_WORDS } from '#core/paint';

/** Smaller copies of the texture are made once it hasn’t changed for so long. */
const REST_MS = 250;

/** The texture as the card has it; what changes goes up tile by tile. */
export class PaintTexture {
  readonly texture: DataTexture;
  private readonly tile = new DataTexture(new Uint8Array(TILE_WORDS), TILE, TILE, RGBAFormat, UnsignedByteType);
  private rest = 0;

  constructor(
    private readonly renderer: WebGLRenderer,
    readonly size: number,
    private readonly stale: () => void,
  ) {
    this.texture = new DataTexture(null, size, size, RGBAFormat, UnsignedByteType);
    this.texture.colorSpace = SRGBColorSpace;
    this.texture.magFilter = LinearFilter;
    this.texture.minFilter = LinearMipmapLinearFilter;
    this.texture.generateMipmaps = true;
    this.texture.anisotropy = Math.min(8, renderer.capabilities.getMaxAnisotropy());
    // It begins clear: there is nothing to send yet.
    this.texture.source.dataReady = false;
    this.texture.needsUpdate = true;
    renderer.initTexture(this.texture);
    this.sharp(true);
  }

  /** `bytes` holds what tiles show one behind the other, `runs` says which of it each does. */
  put(tiles: Uint32Array, runs: Uint32Array, bytes: Uint8Array): void {
    if (tiles.length === 0) return;
    const across = this.size / TILE;
    const at = new Vector2();
    this.sharp(true);
    tiles.forEach((tile, i) => {
      this.tile.image.data = bytes.subarray(
        runs[i] * TILE_WORDS,
        (runs[i] + 1) * TILE_WORDS,
      ) as Uint8Array<ArrayBuffer>;
      at.set((tile % across) * TILE, Math.floor(tile / across) * TILE);
      this.renderer.copyTextureToTexture(this.tile, this.texture, null, at);
    });
    window.clearTimeout(this.rest);
    this.rest = window.setTimeout(() => {
      this.sharp(false);
      this.stale();
    }, REST_MS);
  }

  /** While it changes it is read as it is; at rest smaller copies keep it from flickering. */
  private sharp(on: boolean): void {
    const gl = this.renderer.getContext() as WebGL2RenderingContext;
    const { __webglTexture: own } = this.renderer.properties.get(this.texture) as { __webglTexture?: WebGLTexture };
    if (!own) return;
    this.texture.generateMipmaps = !on;
    this.renderer.state.bindTexture(gl.TEXTURE_2D, own);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, on ? gl.LINEAR : gl.LINEAR_MIPMAP_LINEAR);
    if (!on) gl.generateMipmap(gl.TEXTURE_2D);
    this.renderer.state.unbindTexture();
  }

  dispose(): void {
    window.clearTimeout(this.rest);
    this.texture.dispose();
    this.tile.dispose();
  }
}

/** Corners of triangles that lie on the far side of a seam. */
export interface AtSeams {
  /** u, v of each vertex. */
  coordinates: Float32Array;
  /** Triangles whose corners all have the coordinates of their vertices. */
  inner: Uint32Array;
  /** Vertices of the other ones’ corners, and their coordinates. */
  corners: Uint32Array;
  cornerCoordinates: Float32Array;
}

export function atSeams(
  { triangles, triangleCount, vertexCount }: Pick<MeshArrays, 'triangles' | 'triangleCount' | 'vertexCount'>,
  from: Float32Array,
): AtSeams {
  const coordinates = new Float32Array(vertexCount * 2);
  const met = new Uint8Array(vertexCount);
  const isInner = new Uint8Array(triangleCount);
  let inside = 0;
  for (let t = 0; t < triangleCount; t++) {
    let fits = true;
    for (let i = t * 3; i < t * 3 + 3; i++) {
      const v = triangles[i];
      if (met[v]) fits &&= coordinates[v * 2] === from[i * 2] && coordinates[v * 2 + 1] === from[i * 2 + 1];
    }
    if (!fits) continue;
    for (let i = t * 3; i < t * 3 + 3; i++) {
      const v = triangles[i];
      met[v] = 1;
      coordinates[v * 2] = from[i * 2];
      coordinates[v * 2 + 1] = from[i * 2 + 1];
    }
    isInner[t] = 1;
    inside++;
  }
  const inner = new Uint32Array(inside * 3);
  const corners = new Uint32Array((triangleCount - inside) * 3);
  const cornerCoordinates = new Float32Array(corners.length * 2);
  let [a, b] = [0, 0];
  for (let t = 0; t < triangleCount; t++)
    for (let i = t * 3; i < t * 3 + 3; i++)
      if (isInner[t]) inner[a++] = triangles[i];
      else {
        cornerCoordinates[b * 2] = from[i * 2];
        cornerCoordinates[b * 2 + 1] = from[i * 2 + 1];
        corners[b++] = triangles[i];
      }
  return { coordinates, inner, corners, cornerCoordinates };
}

const FOLLOWED = ['position', 'normal', 'mask'] as const;

/** The triangles beyond seams, drawn beside the body’s own. */
export class SeamFaces {
  readonly mesh: ThreeMesh<BufferGeometry, ShaderMaterial>;

  constructor(
    private readonly of: MeshArrays,
    private readonly seams: AtSeams,
    material: ShaderMaterial,
  ) {
    const geometry = new BufferGeometry();
    const count = seams.corners.length;
    for (const name of FOLLOWED)
      geometry.setAttribute(
        name,
        new BufferAttribute(new Float32Array(count * (name === 'mask' ? 1 : 3)), name === 'mask' ? 1 : 3),
      );
    geometry.setAttribute('uv', new BufferAttribute(seams.cornerCoordinates, 2));
    this.mesh = new ThreeMesh(geometry, material);
    this.mesh.frustumCulled = false;
    this.follow();
  }

  /** Takes places, normals and masks of the mesh as they are now. O(corners at seams). */
  follow(): void {
    const { positions, normals, mask } = this.of;
    const { corners } = this.seams;
    const [p, n, m] = FOLLOWED.map((name) => this.mesh.geometry.getAttribute(name) as BufferAttribute);
    for (let i = 0; i < corners.length; i++) {
      const v = corners[i];
      for (let k = 0; k < 3; k++) {
        p.array[i * 3 + k] = positions[v * 3 + k];
        n.array[i * 3 + k] = normals[v * 3 + k];
      }
      m.array[i] = mask[v];
    }
    p.needsUpdate = n.needsUpdate = m.needsUpdate = true;
  }
}
