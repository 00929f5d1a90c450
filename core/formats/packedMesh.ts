/**
 * A mesh as it is kept: "MSME", version, count of sections; then each section: a tag of four letters, its length in
 * bytes, its bytes, and zeros up to the next whole word. Words are little-endian 32-bit.
 *
 * PLAC float32 x, y, z of each vertex · TRIA uint32 of three vertices a triangle · COOR float32 u, v of each corner ·
 * GROU uint16 group of each triangle · NAME the groups' names, JSON in UTF-8 · COLO red, green, blue of each vertex, as
 * sRGB bytes. The last four are there when the mesh has them; a section that isn't known is passed over.
 *
 * Before version 1 there was a count of vertices, their places and the triangles alone; such bytes are still read.
 */
import type { Carried, RawMesh } from '#core/mesh';

const MAGIC = tag('MSME');
const VERSION = 1;
const HEAD_BYTES = 12;

export function packMesh({ positions, triangles, carried, colours }: RawMesh): ArrayBuffer {
  const sections: [string, ArrayBufferView][] = [
    ['PLAC', positions],
    ['TRIA', triangles],
  ];
  if (carried?.coordinates) sections.push(['COOR', carried.coordinates]);
  if (carried?.groups) {
    sections.push(['GROU', carried.groups.of]);
    sections.push(['NAME', new TextEncoder().encode(JSON.stringify(carried.groups.names))]);
  }
  if (colours) sections.push(['COLO', colours]);
  const out = new ArrayBuffer(sections.reduce((sum, [, { byteLength }]) => sum + 8 + whole(byteLength), HEAD_BYTES));
  const words = new Uint32Array(out);
  words.set([MAGIC, VERSION, sections.length]);
  let at = HEAD_BYTES;
  for (const [name, { buffer, byteOffset, byteLength }] of sections) {
    words.set([tag(name), byteLength], at / 4);
    new Uint8Array(out, at + 8).set(new Uint8Array(buffer, byteOffset, byteLength));
    at += 8 + whole(byteLength);
  }
  return out;
}

/**
 * Throws a sentence when the bytes are no mesh, or are cut short. Whether the mesh is sound is for its user to check.
 */
export function readMesh(bytes: ArrayBuffer): RawMesh {
  const words = new Uint32Array(bytes, 0, Math.floor(bytes.byteLength / 4));
  if (words[0] !== MAGIC) return readFirst(bytes);
  if (words[1] > VERSION)
    throw new Error(
      `The kept mesh is of version ${words[1]}; this program reads up to version ${VERSION}. Update it to open this one.`,
    );
  const found = new Map<number, { at: number; length: number }>();
  let at = HEAD_BYTES;
  for (let i = 0; i < words[2]; i++) {
    const [name, length] = [words[at / 4], words[at / 4 + 1]];
    if (name === undefined || length === undefined || at + 8 + length > bytes.byteLength)
      throw new Error(`The kept mesh is cut short: section ${i + 1} of ${words[2]} is not whole.`);
    found.set(name, { at: at + 8, length });
    at += 8 + whole(length);
  }
  const places = found.get(tag('PLAC'));
  const faces = found.get(tag('TRIA'));
  if (!places || !faces || places.length % 12 !== 0 || faces.length % 12 !== 0)
    throw new Error('The kept mesh is broken: its vertices or triangles are missing, or not in threes.');
  const carried = carriedIn(bytes, found, faces.length / 12);
  const colours = found.get(tag('COLO'));
  if (colours && colours.length !== places.length / 4)
    throw new Error(`The kept mesh is broken: it has ${colours.length / 3} colours of ${places.length / 12} vertices.`);
  return {
    positions: new Float32Array(bytes, places.at, places.length / 4),
    triangles: new Uint32Array(bytes, faces.at, faces.length / 4),
    ...(carried ? { carried } : {}),
    ...(colours ? { colours: new Uint8Array(bytes, colours.at, colours.length) } : {}),
  };
}

function carriedIn(
  bytes: ArrayBuffer,
  found: ReadonlyMap<number, { at: number; length: number }>,
  triangles: number,
): Carried | null {
  const coordinates = found.get(tag('COOR'));
  const groups = found.get(tag('GROU'));
  const names = found.get(tag('NAME'));
  if (!coordinates && !groups) return null;
  if (coordinates && coordinates.length !== triangles * 24)
    throw new Error(`The kept mesh is broken: it has ${coordinates.length / 8} texture corners of ${triangles * 3}.`);
  if (groups && groups.length !== triangles * 2)
    throw new Error(`The kept mesh is broken: it has groups of ${groups.length / 2} triangles, not of ${triangles}.`);
  return {
    coordinates: coordinates ? new Float32Array(bytes, coordinates.at, coordinates.length / 4) : null,
    groups: groups ? { of: new Uint16Array(bytes, groups.at, groups.length / 2), names: namesIn(bytes, names) } : null,
  };
}

function namesIn(bytes: ArrayBuffer, section: { at: number; length: number } | undefined): string[] {
  let names: unknown = null;
  try {
    if (section) names = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, section.at, section.length)));
  } catch {
    // Told below.
  }
  if (!Array.isArray(names) || names.some((name) => typeof name !== 'string'))
    throw new Error('The kept mesh is broken: its groups have no names.');
  return names as string[];
}

function readFirst(bytes: ArrayBuffer): RawMesh {
  const vertices = bytes.byteLength >= 4 ? new Uint32Array(bytes, 0, 1)[0] : 0;
  const rest = bytes.byteLength - 4 - vertices * 12;
  if (rest < 0 || rest % 12 !== 0)
    throw new Error(`The kept mesh is cut short: ${bytes.byteLength} bytes for ${vertices} vertices.`);
  return { positions: new Float32Array(bytes, 4, vertices * 3), triangles: new Uint32Array(bytes, 4 + vertices * 12) };
}

function tag(name: string): number {
  return [...name].reduce((sum, letter, i) => sum + letter.charCodeAt(0) * 2 ** (8 * i), 0);
}

function whole(bytes: number): number {
  return Math.ceil(bytes / 4) * 4;
}
