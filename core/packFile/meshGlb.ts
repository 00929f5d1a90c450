/**
 * A kept mesh as a GLB that gives it back to the bit. Its vertices and triangles are plain glTF, in the mesh’s own
 * numbers; a node turns Z-up to Y-up and brings them to metres. Texture corners and groups, which glTF can’t hold
 * without splitting vertices, lie beside in views of their own that `extras` of the mesh name.
 *
 * Source: "glTF 2.0 Specification", Khronos Group.
 */
import type { RawMesh } from '#core/mesh';
import type { Provenance } from './manifest';

const MAGIC = 0x46546c67;
const JSON_CHUNK = 0x4e4f534a;
const BIN_CHUNK = 0x004e4942;
const FLOAT = 5126;
const UINT = 5125;
const UBYTE = 5121;
const VERTICES = 34962;
const INDICES = 34963;

interface View {
  buffer: 0;
  byteOffset: number;
  byteLength: number;
  target?: number;
}
interface Extras {
  corners?: number;
  groups?: { view: number; names: string[] };
}

export function meshToGlb(
  { positions, triangles, carried, colours }: RawMesh,
  { title, provenance, millimetres }: { title: string; provenance: Provenance; millimetres: number },
): Uint8Array<ArrayBuffer> {
  const views: View[] = [];
  const chunks: Uint8Array[] = [];
  let length = 0;
  const view = ({ buffer, byteOffset, byteLength }: ArrayBufferView, target?: number): number => {
    const padded = new Uint8Array(whole(byteLength));
    padded.set(new Uint8Array(buffer, byteOffset, byteLength));
    views.push({ buffer: 0, byteOffset: length, byteLength, ...(target ? { target } : {}) });
    chunks.push(padded);
    length += padded.length;
    return views.length - 1;
  };
  const vertices = positions.length / 3;
  const [min, max] = bounds(positions);
  const accessors: object[] = [
    { bufferView: view(positions, VERTICES), componentType: FLOAT, count: vertices, type: 'VEC3', min, max },
    { bufferView: view(triangles, INDICES), componentType: UINT, count: triangles.length, type: 'SCALAR' },
  ];
  const attributes: Record<string, number> = { POSITION: 0 };
  if (colours) {
    attributes['COLOR_0'] = 2;
    const four = Uint8Array.from({ length: vertices * 4 }, (_, i) =>
      i % 4 === 3 ? 255 : colours[(i >> 2) * 3 + (i % 4)],
    );
    const bufferView = view(four, VERTICES);
    accessors.push({ bufferView, componentType: UBYTE, normalized: true, count: vertices, type: 'VEC4' });
  }
  const extras: Extras = {};
  if (carried?.coordinates) extras.corners = view(carried.coordinates);
  if (carried?.groups) extras.groups = { view: view(carried.groups.of), names: [...carried.groups.names] };
  const scale = millimetres / 1000;
  const half = Math.SQRT1_2;
  const copyright = [provenance.maker, provenance.site, provenance.licence].filter(Boolean).join(', ');
  const json = JSON.stringify({
    asset: { version: '2.0', generator: 'Mold Stamp', ...(copyright ? { copyright } : {}) },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [{ mesh: 0, name: title, rotation: [-half, 0, 0, half], scale: [scale, scale, scale] }],
    meshes: [
      {
        name: title,
        primitives: [{ attributes, indices: 1, mode: 4 }],
        ...(Object.keys(extras).length > 0 ? { extras } : {}),
      },
    ],
    accessors,
    bufferViews: views,
    buffers: [{ byteLength: length }],
  });
  return glbOf(new TextEncoder().encode(json), chunks, length);
}

function glbOf(json: Uint8Array, chunks: readonly Uint8Array[], length: number): Uint8Array<ArrayBuffer> {
  const text = whole(json.length);
  const out = new Uint8Array(12 + 8 + text + 8 + length);
  const words = new DataView(out.buffer);
  [MAGIC, 2, out.length, text, JSON_CHUNK].forEach((word, i) => words.setUint32(i * 4, word, true));
  out.set(json, 20);
  out.fill(0x20, 20 + json.length, 20 + text);
  words.setUint32(20 + text, length, true);
  words.setUint32(24 + text, BIN_CHUNK, true);
  let at = 28 + text;
  for (const chunk of chunks) {
    out.set(chunk, at);
    at += chunk.length;
  }
  return out;
}

/** Throws a sentence where it isn’t such a GLB. Whether the mesh is sound is for its user to check. */
export function meshFromGlb(bytes: Uint8Array): RawMesh {
  const at = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const word = (offset: number): number => (offset + 4 <= bytes.length ? at.getUint32(offset, true) : -1);
  const text = word(12);
  if (word(0) !== MAGIC || word(16) !== JSON_CHUNK || word(24 + text) !== BIN_CHUNK) throw broken('it isn’t a GLB');
  const bin = bytes.subarray(28 + text, 28 + text + word(20 + text));
  const file = jsonOf(bytes.subarray(20, 20 + text));
  const primitive = file.meshes?.[0]?.primitives?.[0];
  const views = file.bufferViews ?? [];
  const viewed = (index: number | undefined): Uint8Array => {
    const { byteOffset = 0, byteLength = -1 } = (index === undefined ? undefined : views[index]) ?? {};
    if (!(byteOffset >= 0 && byteLength >= 0 && byteOffset + byteLength <= bin.length))
      throw broken('a part of it is missing');
    // A copy of its own, which a Buffer’s slice isn’t.
    return new Uint8Array(bin.subarray(byteOffset, byteOffset + byteLength));
  };
  const accessed = (index: number | undefined, type: string, component: number): Uint8Array => {
    const accessor = index === undefined ? undefined : file.accessors?.[index];
    if (!accessor || accessor.type !== type || accessor.componentType !== component)
      throw broken('its vertices or triangles are of another kind than a pack’s');
    return viewed(accessor.bufferView);
  };
  const positions = new Float32Array(numbers(accessed(primitive?.attributes?.['POSITION'], 'VEC3', FLOAT), 12));
  const triangles = new Uint32Array(numbers(accessed(primitive?.indices, 'SCALAR', UINT), 12));
  const colour = primitive?.attributes?.['COLOR_0'];
  const extras = file.meshes?.[0]?.extras;
  const coordinates = extras?.corners === undefined ? null : new Float32Array(numbers(viewed(extras.corners), 24));
  const groups = extras?.groups
    ? { of: new Uint16Array(numbers(viewed(extras.groups.view), 2)), names: extras.groups.names }
    : null;
  return {
    positions,
    triangles,
    ...(coordinates || groups ? { carried: { coordinates, groups } } : {}),
    ...(colour === undefined ? {} : { colours: threeOf(accessed(colour, 'VEC4', UBYTE)) }),
  };
}

interface GlbJson {
  accessors?: { bufferView?: number; componentType: number; type: string }[];
  bufferViews?: { byteOffset?: number; byteLength?: number }[];
  meshes?: { primitives?: { attributes?: Record<string, number>; indices?: number }[]; extras?: Extras }[];
}

function jsonOf(bytes: Uint8Array): GlbJson {
  try {
    return JSON.parse(new TextDecoder().decode(bytes)) as GlbJson;
  } catch {
    throw broken('what it says of itself can’t be read');
  }
}

function numbers(bytes: Uint8Array, each: number): ArrayBuffer {
  if (bytes.length % each !== 0) throw broken('a part of it is cut short');
  return bytes.buffer as ArrayBuffer;
}

const threeOf = (four: Uint8Array): Uint8Array =>
  Uint8Array.from({ length: (four.length / 4) * 3 }, (_, i) => four[Math.floor(i / 3) * 4 + (i % 3)]);

const broken = (why: string): Error => new Error(`The mesh can’t be read: ${why}.`);

function bounds(positions: Float32Array): [number[], number[]] {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < positions.length; i++) {
    min[i % 3] = Math.min(min[i % 3], positions[i]);
    max[i % 3] = Math.max(max[i % 3], positions[i]);
  }
  return [min, max];
}

function whole(bytes: number): number {
  return Math.ceil(bytes / 4) * 4;
}
