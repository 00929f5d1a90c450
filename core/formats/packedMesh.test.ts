import { plane, type RawMesh } from '#core/mesh';
import { packMesh, readMesh } from './index';

const corner: RawMesh = {
  positions: Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]),
  triangles: Uint32Array.from([0, 1, 2]),
};
const whole: RawMesh = {
  ...corner,
  carried: {
    coordinates: Float32Array.from([0, 0, 1, 0, 0, 1]),
    groups: { names: ['shell', 'Muschel – innen'], of: Uint16Array.from([1]) },
  },
};

test.each([
  ['a bare mesh', corner],
  ['coordinates and groups', whole],
  ['coordinates alone', { ...corner, carried: { ...whole.carried!, groups: null } }],
  ['groups alone', { ...corner, carried: { ...whole.carried!, coordinates: null } }],
])('%s come back', (_, mesh) => {
  expect(readMesh(packMesh(mesh))).toEqual(mesh);
});

test('meshes kept before there were sections are still read', () => {
  const { positions, triangles } = plane(4, 2);
  const bytes = new ArrayBuffer(4 + positions.byteLength + triangles.byteLength);
  new Uint32Array(bytes, 0, 1)[0] = positions.length / 3;
  new Float32Array(bytes, 4, positions.length).set(positions);
  new Uint32Array(bytes, 4 + positions.byteLength).set(triangles);
  expect(readMesh(bytes)).toEqual({ positions, triangles });
});

test('cut anywhere, it is refused with a sentence', () => {
  const bytes = packMesh(whole);
  for (let length = 0; length < bytes.byteLength - 3; length++)
    expect(() => readMesh(bytes.slice(0, length))).toThrow(/^The kept mesh is/);
});

test('a section that isn’t known is passed over; a newer version is told', () => {
  const bytes = packMesh(whole);
  const words = new Uint32Array(bytes);
  const more = new Uint32Array([...words.subarray(0, 2), words[2] + 1, ...words.subarray(3), 0x4c4c4548, 4, 7]);
  expect(readMesh(more.buffer)).toEqual(whole);
  words[1] = 9;
  expect(() => readMesh(bytes)).toThrow('version 9');
});

test.each([
  ['a corner without coordinates', { coordinates: new Float32Array(4), groups: null }, 'texture corners of 3'],
  [
    'a triangle without a group',
    { coordinates: null, groups: { names: ['a'], of: new Uint16Array(0) } },
    'groups of 0',
  ],
])('%s is told', (_, carried, sentence) => {
  expect(() => readMesh(packMesh({ ...corner, carried }))).toThrow(sentence);
});

test('groups without names are told', () => {
  const bytes = new Uint8Array(packMesh(whole));
  // The names begin with a bracket; any other letter there makes them no list.
  bytes[bytes.lastIndexOf('['.charCodeAt(0))] = '8'.charCodeAt(0);
  expect(() => readMesh(bytes.buffer)).toThrow('groups have no names');
});
