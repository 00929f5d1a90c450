import { newBrush, newPack } from '#core/settings';
import { fileNameOf, packFolder, type FolderBrush, type FolderEntry } from '.';

const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const brush = (n: number, name: string, over: Partial<FolderBrush> = {}): FolderBrush => ({
  doc: newBrush(id(n), name, 'Tidewrack Workshop'),
  alphas: [],
  parts: [],
  ...over,
});
const about = (() => {
  const pack = newPack(id(900), 'Harbour crusts');
  return { ...pack, licence: 'CC-BY-4.0', site: 'tidewrack.example', card: { ...pack.card, notes: 'For the tide.' } };
})();
const paths = (entries: FolderEntry[]): string[] => entries.map(({ path }) => path);
const textOf = (entries: FolderEntry[], path: string): string => {
  const found = entries.find((one) => one.path === path)?.content;
  return found?.kind === 'text' ? found.text : '';
};

test('each brush has a folder of its own, with all that it names; groups are folders where there are several', () => {
  const limpet = brush(1, 'Limpet press', {
    alphas: [
      { id: id(11), name: 'Limpet', use: 'Form', vector: false, coloured: true },
      { id: id(12), name: 'Grain', use: 'Tooth', vector: true, coloured: false },
    ],
    parts: [{ id: id(21), name: 'Mussel' }],
  });
  const entries = packFolder({
    name: 'Harbour crusts',
    about,
    groups: [
      { name: 'Growth', brushes: [limpet] },
      { name: 'Empty', brushes: [] },
      { name: 'Stone', brushes: [brush(2, 'Pits')] },
    ],
  });
  expect(paths(entries)).toEqual([
    'Harbour crusts/About.txt',
    'Harbour crusts/Growth/Limpet press/Card.txt',
    'Harbour crusts/Growth/Limpet press/Settings.json',
    'Harbour crusts/Growth/Limpet press/Picture.png',
    'Harbour crusts/Growth/Limpet press/Form, Limpet.png',
    'Harbour crusts/Growth/Limpet press/Form, Limpet, colours.png',
    'Harbour crusts/Growth/Limpet press/Tooth, Grain.exr',
    'Harbour crusts/Growth/Limpet press/Part, Mussel.glb',
    'Harbour crusts/Stone/Pits/Card.txt',
    'Harbour crusts/Stone/Pits/Settings.json',
    'Harbour crusts/Stone/Pits/Picture.png',
  ]);
  const said = textOf(entries, 'Harbour crusts/About.txt');
  for (const part of ['Licence: CC-BY-4.0', 'Site: tidewrack.example', 'For the tide.', 'Stone', '- Pits'])
    expect(said).toContain(part);
  const card = textOf(entries, 'Harbour crusts/Growth/Limpet press/Card.txt');
  expect(card).toContain('Maker: Tidewrack Workshop');
  expect(card).toContain('Licence: CC-BY-4.0');
  expect(JSON.parse(textOf(entries, 'Harbour crusts/Growth/Limpet press/Settings.json'))).toEqual(limpet.doc);
});

test('names that a file system can’t take, or that are alike, are told apart, and no path leaves the folder', () => {
  const odd = [
    '../../etc',
    'CON',
    'a/b\\c:d',
    '...',
    '   ',
    'Pits',
    'PITS',
    'x'.repeat(80),
    `${'x'.repeat(79)}y`,
    'About.txt',
  ];
  const entries = packFolder({
    name: '../Harbour',
    about: null,
    groups: [{ name: '', brushes: odd.map((name, n) => brush(n, name.trim() === '' ? 'Brush' : name)) }],
  });
  const all = paths(entries);
  expect(new Set(all.map((path) => path.toLowerCase())).size).toBe(all.length);
  for (const path of all) {
    expect(path.split('/').some((step) => /^\.+$/.test(step) || step === '' || /[<>:"\\|?*]|[. ]$/.test(step))).toBe(
      false,
    );
    expect(path.startsWith('Harbour/')).toBe(true);
  }
  expect(all).toContain('Harbour/CON_/Card.txt');
  expect(all).toContain('Harbour/PITS 2/Card.txt');
  expect(fileNameOf('nul.txt', 'x')).toBe('nul.txt_');
  expect(fileNameOf('\u0000', 'x')).toBe('x');
});
