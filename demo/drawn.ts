/** What is drawn rather than sculpted or scanned: the crate marks in type, and three patterns. */
import { setBlocks, type LetterFont } from '#core/lettering';
import { rasterOf } from '#core/picture';
import {
  BlockSchema,
  GrowSchema,
  LetteringSchema,
  PatternSchema,
  SOURCE_VERSION,
  StepSchema,
  type Alpha,
  type Block,
  type Lettering,
  type Pattern,
} from '#core/settings';
import { demoAlpha } from './demoAlpha';
import type { DemoMachine } from './tidewrack';

const uuid = (n: number): string => `d0000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

export function crateMarks(id: string, author: string): Lettering {
  const block = (n: number, given: Partial<Block>): Block => BlockSchema.parse({ id: uuid(n), ...given });
  return LetteringSchema.parse({
    version: SOURCE_VERSION,
    kind: 'lettering',
    id,
    card: { name: 'Crate marks', author, tags: ['tidewrack'] },
    blocks: [
      block(401, {
        text: 'TIDEWRACK\nWHARF',
        font: { kind: 'shipped', key: 'saira-stencil-one' },
        size: 13.5,
        lineHeight: 104,
        y: 45,
        spacing: 2,
      }),
      block(402, {
        text: 'SALT COD AND CORDAGE',
        font: { kind: 'shipped', key: 'oswald' },
        weight: 'bold',
        size: 7.5,
        arc: 100,
        y: 14,
        spacing: 6,
      }),
      block(403, { text: 'No 47', font: { kind: 'shipped', key: 'alfa-slab-one' }, size: 16, y: 74 }),
      block(404, { text: 'keep dry', font: { kind: 'shipped', key: 'special-elite' }, size: 8, y: 89, grey: 0.5 }),
    ],
  });
}

export async function castLettering(
  id: string,
  name: string,
  lettering: Lettering,
  { hash, fontOf }: Pick<DemoMachine, 'hash' | 'fontOf'>,
): Promise<{ doc: Alpha; bytes: Uint8Array }> {
  const SIZE = 1024;
  const fonts = new Map<string, LetterFont>();
  for (const block of lettering.blocks) fonts.set(block.id, await fontOf(block));
  const { picture } = setBlocks(lettering.blocks, (block) => fonts.get(block.id)!, SIZE);
  const steps = [
    StepSchema.parse({ kind: 'bevel', id: uuid(1501), width: 0.9 }),
    StepSchema.parse({ kind: 'pad', id: uuid(1502), margin: 14 }),
  ];
  return demoAlpha(
    {
      id,
      name,
      author: lettering.card.author,
      size: SIZE,
      relief: 0.06,
      sourceId: lettering.id,
      recipe: { base: { kind: 'lettering', sourceId: lettering.id }, steps },
      hash,
    },
    rasterOf(picture),
  );
}

export function patterns(author: string, id: (n: number) => string): Pattern[] {
  const make = (n: number, name: string, grow: unknown): Pattern =>
    PatternSchema.parse({
      version: SOURCE_VERSION,
      kind: 'pattern',
      id: id(n),
      card: { name, author, tags: ['tidewrack'] },
      grow: GrowSchema.parse(grow),
    });
  return [
    make(5, 'Creel weave', { form: 'weave', seed: 12, across: 6, over: 1, fray: 26, fill: 86, round: 80 }),
    make(6, 'Shingle', { form: 'pebbles', seed: 4, across: 6, fill: 92, vary: 70, flat: 40 }),
    make(7, 'Dried mud', { form: 'cracks', seed: 9, across: 5, width: 13, ragged: 55, branch: 60 }),
  ];
}
