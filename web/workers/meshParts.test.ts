/** Every format as other programs write it, put down here by hand: what is read is what was written. */
import type { DRACOLoader } from 'three/examples/jsm/loaders/DRACOLoader.js';
import { seeded } from '#core/random';
import { merged, type RawMesh } from '#core/mesh';
import { joinedMesh } from './joinedMesh';
import { partsOf } from './meshParts';

const random = seeded(12);
const VERTICES = 40;
const TRIANGLES = 70;
const positions = Float32Array.from({ length: VERTICES * 3 }, () => (random() - 0.5) * 200);
const triangles = Uint32Array.from({ length: TRIANGLES * 3 }, (_, i) =>
  i < VERTICES ? i : Math.floor(random() * VERTICES),
);
for (let i = 0; i < triangles.length; i += 3) {
  triangles[i + 1] = triangles[i + 1] === triangles[i] ? (triangles[i] + 1) % VERTICES : triangles[i + 1];
  while (triangles[i + 2] === triangles[i] || triangles[i + 2] === triangles[i + 1])
    triangles[i + 2] = (triangles[i + 2] + 1) % VERTICES;
}
const colours = Uint8Array.from({ length: VERTICES * 3 }, () => Math.floor(random() * 256));

const text = (s: string): ArrayBuffer => new TextEncoder().encode(s).buffer as ArrayBuffer;
const at = (v: number): string => [...positions.subarray(v * 3, v * 3 + 3)].join(' ');
const each = <T>(n: number, make: (i: number) => T): T[] => Array.from({ length: n }, (_, i) => make(i));
const plyHead = (format: string): string =>
  [
    'ply',
    `format ${format} 1.0`,
    'comment as a scanner writes it',
    `element vertex ${VERTICES}`,
    ...['x', 'y', 'z'].map((a) => `property float ${a}`),
    ...['red', 'green', 'blue'].map((a) => `property uchar ${a}`),
    `element face ${TRIANGLES}`,
    'property list uchar int vertex_indices',
    'end_header\n',
  ].join('\n');

function plyBinary(little: boolean): ArrayBuffer {
  const head = new TextEncoder().encode(plyHead(little ? 'binary_little_endian' : 'binary_big_endian'));
  const out = new Uint8Array(head.length + VERTICES * 15 + TRIANGLES * 13);
  out.set(head);
  const view = new DataView(out.buffer, head.length);
  for (let v = 0; v < VERTICES; v++) {
    for (let k = 0; k < 3; k++) view.setFloat32(v * 15 + k * 4, positions[v * 3 + k], little);
    for (let k = 0; k < 3; k++) view.setUint8(v * 15 + 12 + k, colours[v * 3 + k]);
  }
  for (let t = 0; t < TRIANGLES; t++) {
    view.setUint8(VERTICES * 15 + t * 13, 3);
    for (let k = 0; k < 3; k++) view.setInt32(VERTICES * 15 + t * 13 + 1 + k * 4, triangles[t * 3 + k], little);
  }
  return out.buffer;
}

function stlBinary(): ArrayBuffer {
  const view = new DataView(new ArrayBuffer(84 + TRIANGLES * 50));
  view.setUint32(80, TRIANGLES, true);
  for (let t = 0; t < TRIANGLES; t++) {
    for (let k = 0; k < 9; k++)
      view.setFloat32(84 + t * 50 + 12 + k * 4, positions[triangles[t * 3 + Math.floor(k / 3)] * 3 + (k % 3)], true);
  }
  return view.buffer;
}

function stlText(): ArrayBuffer {
  const facet = (t: number): string =>
    `facet normal 0 0 0\nouter loop\n${each(3, (k) => `vertex ${at(triangles[t * 3 + k])}`).join('\n')}\nendloop\nendfacet`;
  return text(`solid stone\n${each(TRIANGLES, facet).join('\n')}\nendsolid stone\n`);
}

function glb(): ArrayBuffer {
  const padded = (bytes: Uint8Array, by: number): Uint8Array => {
    const out = new Uint8Array(Math.ceil(bytes.length / 4) * 4).fill(by);
    out.set(bytes);
    return out;
  };
  const binary = new Uint8Array(positions.byteLength + triangles.byteLength);
  binary.set(new Uint8Array(positions.buffer));
  binary.set(new Uint8Array(triangles.buffer), positions.byteLength);
  const json = padded(
    new TextEncoder().encode(
      JSON.stringify({
        asset: { version: '2.0' },
        scenes: [{ nodes: [0] }],
        nodes: [{ mesh: 0 }],
        meshes: [{ primitives: [{ attributes: { POSITION: 0 }, indices: 1 }] }],
        accessors: [
          {
            bufferView: 0,
            componentType: 5126,
            count: VERTICES,
            type: 'VEC3',
            min: [-100, -100, -100],
            max: [100, 100, 100],
          },
          { bufferView: 1, componentType: 5125, count: TRIANGLES * 3, type: 'SCALAR' },
        ],
        bufferViews: [
          { buffer: 0, byteOffset: 0, byteLength: positions.byteLength },
          { buffer: 0, byteOffset: positions.byteLength, byteLength: triangles.byteLength },
        ],
        buffers: [{ byteLength: binary.length }],
      }),
    ),
    32,
  );
  const out = new ArrayBuffer(12 + 8 + json.length + 8 + binary.length);
  const view = new DataView(out);
  const words = [0x46546c67, 2, out.byteLength, json.length, 0x4e4f534a];
  words.forEach((w, i) => view.setUint32(i * 4, w, true));
  new Uint8Array(out, 20).set(json);
  view.setUint32(20 + json.length, binary.length, true);
  view.setUint32(24 + json.length, 0x004e4942, true);
  new Uint8Array(out, 28 + json.length).set(binary);
  return out;
}

const tint = (v: number): string => each(3, (k) => (colours[v * 3 + k] / 255).toFixed(6)).join(' ');
const face = (t: number, first: number): string => each(3, (k) => triangles[t * 3 + k] + first).join(' ');
const FILES: [string, string, () => ArrayBuffer, boolean][] = [
  [
    'OBJ',
    'obj',
    () => text([...each(VERTICES, (v) => `v ${at(v)}`), ...each(TRIANGLES, (t) => `f ${face(t, 1)}`)].join('\n')),
    false,
  ],
  [
    'OBJ with colours, lines and points',
    'obj',
    () =>
      text(
        [
          '# a scan',
          ...each(VERTICES, (v) => `v ${at(v)} ${tint(v)}`),
          'l 1 2',
          'p 3',
          ...each(TRIANGLES, (t) => `f ${face(t, 1)}`),
        ].join('\n'),
      ),
    true,
  ],
  [
    'PLY as text',
    'ply',
    () =>
      text(
        plyHead('ascii') +
          [
            ...each(VERTICES, (v) => `${at(v)} ${[...colours.subarray(v * 3, v * 3 + 3)].join(' ')}`),
            ...each(TRIANGLES, (t) => `3 ${face(t, 0)}`),
          ].join('\n') +
          '\n',
      ),
    true,
  ],
  ['PLY, little end first', 'ply', () => plyBinary(true), true],
  ['PLY, big end first', 'ply', () => plyBinary(false), true],
  ['STL', 'stl', stlBinary, false],
  ['STL as text', 'stl', stlText, false],
  ['GLB', 'glb', glb, false],
];

/** The corners of every triangle in the order of the file, whatever its vertices are numbered. */
function corners({ positions: p, triangles: t, colours: c }: RawMesh): { places: number[]; tints: number[] } {
  const places = [...t].flatMap((v) => [p[v * 3], p[v * 3 + 1], p[v * 3 + 2]]);
  return { places, tints: c ? [...t].flatMap((v) => [c[v * 3], c[v * 3 + 1], c[v * 3 + 2]]) : [] };
}

test.each(FILES)('%s', async (_, ending, write, coloured) => {
  const read = joinedMesh(await partsOf(ending, write(), null as unknown as DRACOLoader));
  const { places, tints } = corners(read);
  const wanted = corners({ positions, triangles, colours });
  expect(places).toEqual(wanted.places);
  expect(read.colours !== undefined).toBe(coloured);
  tints.forEach((tint, i) => expect(Math.abs(tint - wanted.tints[i])).toBeLessThanOrEqual(1));
  // Welded by their places, vertices are what the file meant.
  expect(merged(read, 0).mesh.positions.length / 3).toBe(new Set(triangles).size);
});

test('a PLY of points alone has no faces', async () => {
  const points = plyHead('ascii').replace(`element face ${TRIANGLES}`, 'element face 0');
  const bytes = text(points + each(VERTICES, (v) => `${at(v)} 1 2 3`).join('\n') + '\n');
  expect(joinedMesh(await partsOf('ply', bytes, null as unknown as DRACOLoader)).triangles).toHaveLength(0);
});
