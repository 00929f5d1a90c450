/** The parts of a mesh file as one mesh: what each is called becomes a group, texture coordinates go along. */
import type { BufferAttribute, BufferGeometry, InterleavedBufferAttribute } from 'three';
import type { Carried, RawMesh } from '#core/mesh';

export interface FilePart {
  geometry: BufferGeometry;
  /** Of the object, or of each run of triangles that has a material of its own. */
  name: string;
  materials: readonly string[];
  /** Its colours are in linear light, as glTF has them; others are sRGB. */
  linear?: boolean;
}

/** Groups are numbered in 16 bits; what comes behind the last one is of it too. */
const MOST_GROUPS = 65_536;
const LONGEST_NAME = 200;

export function joinedMesh(parts: readonly FilePart[]): RawMesh {
  const usable = parts.filter(({ geometry }) => geometry.getAttribute('position'));
  const vertices = usable.reduce((sum, { geometry }) => sum + geometry.getAttribute('position').count, 0);
  const count = usable.reduce((sum, { geometry }) => sum + trianglesOf(geometry), 0);
  const positions = new Float32Array(vertices * 3);
  const triangles = new Uint32Array(count * 3);
  const mapped = usable.some(({ geometry }) => geometry.getAttribute('uv'));
  const coordinates = mapped ? new Float32Array(count * 6) : null;
  const groups = new GroupNames(count);
  const tinted = usable.some(({ geometry }) => geometry.getAttribute('color'));
  const colours = tinted ? new Uint8Array(vertices * 3).fill(255) : undefined;
  let v = 0;
  let t = 0;
  for (const part of usable) {
    const { geometry } = part;
    const from = geometry.getAttribute('position');
    const uv = geometry.getAttribute('uv');
    const first = v;
    const places = plainOf(from);
    if (places) positions.set(places, v * 3);
    else {
      for (let i = 0; i < from.count; i++) {
        positions[(v + i) * 3] = from.getX(i);
        positions[(v + i) * 3 + 1] = from.getY(i);
        positions[(v + i) * 3 + 2] = from.getZ(i);
      }
    }
    if (colours) writeColours(colours, v * 3, part);
    v += from.count;
    const begun = t;
    if (!uv) {
      writeCorners(triangles, t, first, geometry);
      t += trianglesOf(geometry);
    }
    for (const end = begun + trianglesOf(geometry); t < end; t++) {
      for (let k = 0; k < 3; k++) {
        const corner = (t - begun) * 3 + k;
        const i = geometry.index ? geometry.index.getX(corner) : corner;
        triangles[t * 3 + k] = first + i;
        // In glTF v runs down.
        if (coordinates && uv) coordinates.set([uv.getX(i), part.linear ? 1 - uv.getY(i) : uv.getY(i)], t * 6 + k * 2);
      }
    }
    groups.give(part, begun, t);
  }
  return { positions, triangles, carried: carriedOf(coordinates, groups.made()), ...(colours ? { colours } : {}) };
}

/** x, y, z one after the other, as they are wanted. */
function plainOf(places: BufferAttribute | InterleavedBufferAttribute): Float32Array | null {
  const plain = places.itemSize === 3 && !('isInterleavedBufferAttribute' in places) && places.array;
  return plain instanceof Float32Array && plain.length === places.count * 3 ? plain : null;
}

function writeCorners(triangles: Uint32Array, t: number, first: number, geometry: BufferGeometry): void {
  const corners = trianglesOf(geometry) * 3;
  const index = geometry.index?.array;
  for (let i = 0; i < corners; i++) triangles[t * 3 + i] = first + (index ? index[i] : i);
}

function writeColours(colours: Uint8Array, at: number, { geometry, linear }: FilePart): void {
  const byte = linear ? srgbByte : (value: number): number => Math.round(Math.max(0, Math.min(1, value)) * 255);
  const from = geometry.getAttribute('color');
  if (!from) return;
  const count = Math.min(from.count, geometry.getAttribute('position').count);
  for (let i = 0; i < count; i++) {
    colours[at + i * 3] = byte(from.getX(i));
    colours[at + i * 3 + 1] = byte(from.getY(i));
    colours[at + i * 3 + 2] = byte(from.getZ(i));
  }
}

/** IEC 61966-2-1. */
function srgbByte(linear: number): number {
  const s = linear <= 0.0031308 ? linear * 12.92 : 1.055 * linear ** (1 / 2.4) - 0.055;
  return Math.round(Math.max(0, Math.min(1, s)) * 255);
}

function carriedOf(coordinates: Float32Array | null, groups: Carried['groups']): Carried | undefined {
  return coordinates || groups ? { coordinates, groups } : undefined;
}

function trianglesOf({ index, attributes }: BufferGeometry): number {
  return Math.floor((index ? index.count : attributes.position!.count) / 3);
}

class GroupNames {
  private readonly numbers = new Map<string, number>();
  private readonly of: Uint16Array;

  constructor(triangles: number) {
    this.of = new Uint16Array(triangles);
  }

  /** The triangles from `begin` up to `end` are those of this part. */
  give({ geometry, name, materials }: FilePart, begin: number, end: number): void {
    this.of.fill(this.number(name), begin, end);
    if (materials.length < 2) return;
    for (const { start, count, materialIndex } of geometry.groups) {
      const own = [name, materials[materialIndex ?? 0] ?? ''].filter(Boolean).join(', ');
      const last = begin + Math.floor((start + count) / 3);
      this.of.fill(this.number(own), begin + Math.floor(start / 3), Math.min(end, last));
    }
  }

  /** Null where all is one group. */
  made(): Carried['groups'] {
    const used = new Set(this.of);
    return used.size < 2 ? null : { names: [...this.numbers.keys()], of: this.of };
  }

  private number(name: string): number {
    const short = name.slice(0, LONGEST_NAME);
    const known = this.numbers.get(short);
    if (known !== undefined) return known;
    if (this.numbers.size === MOST_GROUPS) return MOST_GROUPS - 1;
    this.numbers.set(short, this.numbers.size);
    return this.numbers.size - 1;
  }
}
