import { giveBack, OutOfMemory, room, allocate, allocateWords } from './index';

test('blocks don’t meet, and address 0 is none', () => {
  const r = room(1000);
  const blocks = [10, 100, 16, 1].map((bytes) => allocate(r, bytes));
  blocks.forEach((b, i) => {
    expect(b.at % 16).toBe(0);
    expect(b.at).toBeGreaterThan(0);
    if (i > 0) expect(b.at).toBe(blocks[i - 1].at + blocks[i - 1].bytes);
  });
});

test('what is given back is taken again; neighbours are joined', () => {
  const r = room();
  const [a, b, c] = [allocate(r, 64), allocate(r, 64), allocate(r, 64)];
  giveBack(r, a);
  giveBack(r, c);
  giveBack(r, b);
  expect(r.free).toEqual([{ at: a.at, bytes: 192 }]);
  expect(allocate(r, 160).at).toBe(a.at);
  expect(r.free).toEqual([{ at: a.at + 160, bytes: 32 }]);
});

test('growing leaves older views on the same bytes; words come as zero', () => {
  const r = room(100);
  const first = allocateWords(r, 10);
  first.fill(7);
  const block = allocate(r, 64);
  new Uint32Array(r.memory.buffer, block.at, 16).fill(9);
  giveBack(r, block);
  expect(allocateWords(r, 16).every((w) => w === 0)).toBe(true);
  allocateWords(r, 1e6);
  new Uint32Array(r.memory.buffer, first.byteOffset, 10)[3] = 5;
  expect(first[3]).toBe(5);
});

test('more than 4 GiB is refused before anything is taken', () => {
  expect(() => room(5e9)).toThrow(OutOfMemory);
  const r = room();
  expect(() => allocate(r, 4_294_967_295)).toThrow(/MB of memory more than there is/);
  expect(r.top).toBe(1024);
});
