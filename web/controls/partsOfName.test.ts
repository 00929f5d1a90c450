import { partsOfName } from './partsOfName';

test.each([
  ['Sponge and bristle 12', 'Sponge and bristle', ' 12'],
  ['Limpet press copy', 'Limpet press', ' copy'],
  ['Limpet press copy 3', 'Limpet press', ' copy 3'],
  ['Limpet', 'Limpet', ''],
  ['12', '12', ''],
  ['copy', 'copy', ''],
  ['', '', ''],
  ['Ø 40', 'Ø', ' 40'],
  ['No 1234567', 'No 1234567', ''],
])('“%s”', (name, stem, tail) => {
  const parts = partsOfName(name);
  expect(parts).toEqual({ stem, tail });
  expect(parts.stem + parts.tail).toBe(name);
});
