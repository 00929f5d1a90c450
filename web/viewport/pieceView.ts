/**
 * Pieces as they are drawn: those of one part are instances of one geometry, which costs a matrix and a colour each;
 * one that was bent has a geometry of its own.
 */
import { BufferAttribute, BufferGeometry, Color, InstancedMesh, Matrix4, type Scene, type ShaderMaterial } from 'three';
import { toCreasedNormals } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import type { RawMesh } from '#core/mesh';
import type { Piece, Placement } from '#core/scene';

/** Edges over which faces turn by more than this are drawn sharp. */
const CREASE_RAD = (35 * Math.PI) / 180;
const FIRST_ROOM = 16;
/** Stands for the clay's own colour. */
const NO_TINT = new Color(-1, -1, -1);

interface Group {
  mesh: InstancedMesh<BufferGeometry, ShaderMaterial>;
  ids: string[];
}

export class PieceView {
  private readonly groups = new Map<string, Group>();
  /** Which group each piece stands in. */
  private readonly homes = new Map<string, string>();
  private readonly geometries = new Map<string, BufferGeometry>();
  private readonly material: ShaderMaterial;
  private readonly ghostMaterial: ShaderMaterial;
  private ghost: InstancedMesh<BufferGeometry, ShaderMaterial> | null = null;

  constructor(
    private readonly scene: Scene,
    clay: ShaderMaterial,
    private readonly stale: () => void,
  ) {
    this.material = piecesIn(clay, 0);
    this.ghostMaterial = piecesIn(clay, 1);
  }

  /** Whether the geometry of this key is there. */
  has(key: string): boolean {
    return this.geometries.has(key);
  }

  /** A part on its seat, by the key that its pieces name. */
  know(key: string, stood: RawMesh): void {
    if (!this.geometries.has(key)) this.geometries.set(key, geometryOf(stood.positions, stood.triangles));
  }

  /** Shows a piece as it is now; its part must be known. `chosen` ones are tinted. */
  put(piece: Piece, key: string, tint: Color | null): void {
    const home = piece.shape ? `bent ${piece.id}` : key;
    this.remove(piece.id);
    if (piece.hidden) return;
    let geometry = this.geometries.get(home);
    if (piece.shape) {
      geometry = bentGeometry(piece.shape, this.geometries.get(key));
      if (geometry) this.geometries.set(home, geometry);
    }
    if (!geometry) return;
    const group = this.groupOf(home, geometry);
    const at = group.ids.length;
    group.ids.push(piece.id);
    this.homes.set(piece.id, home);
    group.mesh.count = group.ids.length;
    group.mesh.setMatrixAt(at, matrixOf(piece.at));
    group.mesh.setColorAt(at, tint ?? NO_TINT);
    this.changed(group);
  }

  remove(id: string): void {
    const home = this.homes.get(id);
    if (home === undefined) return;
    this.homes.delete(id);
    const group = this.groups.get(home)!;
    const at = group.ids.indexOf(id);
    const last = group.ids.length - 1;
    // The last one takes the place of the one that goes.
    if (at !== last) {
      const matrix = new Matrix4();
      const tint = new Color();
      group.mesh.getMatrixAt(last, matrix);
      group.mesh.getColorAt(last, tint);
      group.mesh.setMatrixAt(at, matrix);
      group.mesh.setColorAt(at, tint);
      group.ids[at] = group.ids[last];
    }
    group.ids.pop();
    group.mesh.count = group.ids.length;
    this.changed(group);
    if (home.startsWith('bent ')) this.forget(home);
  }

  clear(): void {
    for (const id of [...this.homes.keys()]) this.remove(id);
  }

  /** What would be set down, seen through; null shows none. */
  setGhost(key: string | null, at: Placement | null): void {
    const geometry = key === null ? undefined : this.geometries.get(key);
    if (this.ghost) {
      this.scene.remove(this.ghost);
      this.ghost.dispose();
      this.ghost = null;
    } else if (!geometry || !at) return;
    if (geometry && at) {
      this.ghost = new InstancedMesh(geometry, this.ghostMaterial, 1);
      this.ghost.frustumCulled = false;
      this.ghost.setMatrixAt(0, matrixOf(at));
      this.ghost.setColorAt(0, NO_TINT);
      this.scene.add(this.ghost);
    }
    this.stale();
  }

  dispose(): void {
    this.setGhost(null, null);
    for (const { mesh } of this.groups.values()) mesh.dispose();
    for (const geometry of this.geometries.values()) geometry.dispose();
    this.material.dispose();
    this.ghostMaterial.dispose();
  }

  private groupOf(home: string, geometry: BufferGeometry): Group {
    const known = this.groups.get(home);
    if (known && known.ids.length < known.mesh.instanceMatrix.count) return known;
    const room = known ? known.mesh.instanceMatrix.count * 2 : FIRST_ROOM;
    const mesh = new InstancedMesh(geometry, this.material, room);
    mesh.frustumCulled = false;
    mesh.setColorAt(0, NO_TINT);
    mesh.count = known?.ids.length ?? 0;
    if (known) {
      mesh.instanceMatrix.array.set(known.mesh.instanceMatrix.array);
      mesh.instanceColor!.array.set(known.mesh.instanceColor!.array);
      this.scene.remove(known.mesh);
      known.mesh.dispose();
    }
    this.scene.add(mesh);
    const group = { mesh, ids: known?.ids ?? [] };
    this.groups.set(home, group);
    return group;
  }

  private changed({ mesh }: Group): void {
    mesh.instanceMatrix.needsUpdate = true;
    if (mesh.instanceColor) mesh.instanceColor.needsUpdate = true;
    this.stale();
  }

  private forget(home: string): void {
    const group = this.groups.get(home);
    if (group) {
      this.scene.remove(group.mesh);
      group.mesh.dispose();
      this.groups.delete(home);
    }
    this.geometries.get(home)?.dispose();
    this.geometries.delete(home);
  }
}

/** The clay's material for instances; its looks stay the clay's. */
function piecesIn(clay: ShaderMaterial, ghost: 0 | 1): ShaderMaterial {
  const out = clay.clone();
  out.defines = { ...out.defines, PIECES: '' };
  out.uniforms = { ...clay.uniforms, ghost: { value: ghost } };
  return out;
}

function geometryOf(positions: Float32Array, triangles: Uint32Array): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  geometry.setIndex(new BufferAttribute(triangles, 1));
  const out = toCreasedNormals(geometry, CREASE_RAD);
  out.userData['triangles'] = triangles;
  return out;
}

function bentGeometry(shape: Float32Array, part: BufferGeometry | undefined): BufferGeometry | undefined {
  const triangles = part?.userData['triangles'] as Uint32Array | undefined;
  return triangles && geometryOf(shape, triangles);
}

function matrixOf({ origin: o, across: a, forward: f, up: u }: Placement): Matrix4 {
  return new Matrix4().set(a[0], f[0], u[0], o[0], a[1], f[1], u[1], o[1], a[2], f[2], u[2], o[2], 0, 0, 0, 1);
}
