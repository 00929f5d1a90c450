import fc from 'fast-check';
import { sharePage, type SharedPack } from './sharePage';

const pack: SharedPack = {
  name: 'Harbour crusts',
  maker: 'Tidewrack Workshop',
  site: 'https://tidewrack.example',
  licence: 'CC-BY-4.0',
  notes: '',
  groups: [
    { name: 'Growth', brushes: [{ name: 'Sea pits', does: 'Lift, Trail', notes: 'Fine', picture: 'AAAA' }] },
    { name: 'Empty', brushes: [] },
    { name: 'Stone', brushes: [{ name: 'Chisel', does: 'Lift, Press', notes: '', picture: 'BBBB' }] },
  ],
};
const whole = (of: Partial<SharedPack> = {}): string => {
  const { before, after } = sharePage({ ...pack, ...of });
  return before + after;
};

test('it names the pack, its maker, its licence and every brush, in groups', () => {
  const page = whole();
  for (const said of [
    '<h1>Harbour crusts</h1>',
    '2 brushes',
    'Tidewrack Workshop',
    'Growth',
    'Stone',
    'Sea pits',
    'AAAA',
  ])
    expect(page).toContain(said);
  expect(page).not.toContain('Empty');
  expect(page).toContain('href="https://tidewrack.example"');
  expect(page).toContain('data-file="Harbour crusts.pack.zip"');
});

test('nothing is fetched from anywhere', () => {
  expect(whole({ site: '' })).not.toMatch(/(?:src|href)="(?!data:)/);
});

test('whatever names and notes say is text, and no other site becomes a link', () => {
  const marked = fc.string({ unit: fc.constantFrom('<', '>', '"', "'", '&', 'a', '/', ' ', 'script', 'onerror=') });
  fc.assert(
    fc.property(marked, marked, (name, notes) => {
      const plain = whole({ name: 'x', notes: 'y' });
      const page = whole({
        name,
        notes,
        maker: name,
        groups: [{ name, brushes: [{ ...pack.groups[0].brushes[0], name, notes }] }],
      });
      const tags = (html: string): string[] => [...new Set(html.match(/<[a-z/!]+/gi))].sort();
      expect(tags(page).filter((tag) => !tags(plain).includes(tag))).toEqual([]);
    }),
  );
  for (const site of ['javascript:alert(1)', 'data:text/html,x', '//x.example', 'https://x.example/" onclick="x'])
    expect(whole({ site })).not.toMatch(/<a href="(?!https:\/\/tidewrack)/);
});
