import { readFileSync } from 'node:fs';
import { formBox } from '#core/filter';
import type { Picture } from '#core/picture';
import { BlockSchema, SHIPPED_FONTS, type Block } from '#core/settings';
import { readFont, setBlocks, type LetterFont } from '#core/lettering';

const file = (key: string): ArrayBuffer => {
  const bytes = readFileSync(`node_modules/@fontsource/${key}/files/${key}-latin-400-normal.woff`);
  return bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length);
};
const slab = readFont(file('alfa-slab-one'), 'slab');
const block = (change: Partial<Block> = {}): Block =>
  BlockSchema.parse({ id: crypto.randomUUID(), text: 'HI', ...change });
const set = (blocks: Block[], font: LetterFont = slab, size = 200): Picture =>
  setBlocks(blocks, () => font, size).picture;
const ink = (p: Picture): number => p.data.reduce((a, b) => a + b, 0);

test.each(SHIPPED_FONTS.map((f) => [f.key]))('the font %s is read and has letters, digits and signs', (key) => {
  const { picture, missing } = setBlocks(
    [block({ text: 'Wharf 47 &!', size: 12 })],
    () => readFont(file(key), key),
    160,
  );
  expect(missing.size).toBe(0);
  expect(ink(picture)).toBeGreaterThan(100);
});

test('the block stands in its middle, and its size is the size it says', () => {
  const box = formBox(set([block({ size: 40 })]), 0)!;
  expect((box.left + box.right) / 2).toBeCloseTo(100, -0.5);
  expect((box.top + box.bottom) / 2).toBeCloseTo(100, -0.7);
  const double = formBox(set([block({ size: 80 })]), 0)!;
  expect((double.bottom - double.top) / (box.bottom - box.top)).toBeCloseTo(2, 0);
  const moved = formBox(set([block({ size: 40, x: 70, y: 30 })]), 0)!;
  expect(moved.left - box.left).toBeCloseTo(40, -0.5);
  expect(moved.top - box.top).toBeCloseTo(-40, -0.5);
});

test('alignment, spacing and line height', () => {
  const lines = (align: Block['align']): [number, number] => {
    const p = set([block({ text: 'IIIII\nI', size: 20, align, lineHeight: 150 })]);
    const half = { ...p, height: 100, data: p.data.slice(100 * 200) };
    const box = formBox(half, 0)!;
    return [box.left, box.right];
  };
  expect(lines('left')[0]).toBeLessThan(lines('centre')[0]);
  expect(lines('centre')[1]).toBeLessThan(lines('right')[1]);
  const wide = formBox(set([block({ text: 'IIII', size: 20, spacing: 50 })]), 0)!;
  const close = formBox(set([block({ text: 'IIII', size: 20 })]), 0)!;
  expect(wide.right - wide.left - (close.right - close.left)).toBeCloseTo(3 * 0.5 * 40, -0.5);
});

test('grey, outline, turn and arc', () => {
  expect(Math.max(...set([block({ grey: 0.5 })]).data)).toBeCloseTo(0.5, 5);
  const filled = set([block({ text: 'O', size: 60 })]);
  const outlined = set([block({ text: 'O', size: 60, outline: 3 })]);
  expect(ink(outlined)).toBeLessThan(ink(filled) * 0.5);
  expect(ink(outlined)).toBeGreaterThan(ink(filled) * 0.05);
  const turned = formBox(set([block({ text: 'IIIIII', size: 20, turn: 90 })]), 0)!;
  expect(turned.bottom - turned.top).toBeGreaterThan(turned.right - turned.left);
  // Bent up: the middle of the line stands higher than its ends.
  const arc = set([block({ text: 'IIIIIIIII', size: 16, arc: 120 })]);
  const column = (i0: number, i1: number): number => {
    let sum = 0;
    let weight = 0;
    for (let j = 0; j < 200; j++)
      for (let i = i0; i < i1; i++) {
        sum += arc.data[j * 200 + i] * j;
        weight += arc.data[j * 200 + i];
      }
    return sum / weight;
  };
  const box = formBox(arc, 0)!;
  expect(column(90, 110)).toBeLessThan(column(box.left, box.left + 12) - 5);
});

test('characters that a font lacks are named and left out', () => {
  const { picture, missing } = setBlocks([block({ text: '漢I字' })], () => slab, 100);
  expect([...missing.values()]).toEqual([['漢', '字']]);
  expect(ink(picture)).toBeGreaterThan(0);
});

test.each([
  ['empty.ttf', new ArrayBuffer(0), 'empty.ttf is empty'],
  ['text.otf', new TextEncoder().encode('hello, no font').buffer, 'text.otf isn’t a font'],
  ['packed.woff2', new TextEncoder().encode('wOF2xxxxxxxx').buffer, 'WOFF2'],
  ['cut.woff', file('oswald').slice(0, 900), 'cut.woff can’t be read as a font'],
])('%s is refused with a sentence', (name, bytes, sentence) => {
  expect(() => readFont(bytes, name)).toThrow(sentence);
});
