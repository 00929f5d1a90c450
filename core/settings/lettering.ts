/** Lettering: blocks of text set on a square, white the highest. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { setting } from './setting';

/** Open fonts that come with the program. */
export const SHIPPED_FONTS = [
  { key: 'alfa-slab-one', label: 'Broad slab' },
  { key: 'saira-stencil-one', label: 'Stencil' },
  { key: 'oswald', label: 'Narrow', bold: true },
  { key: 'ibm-plex-sans', label: 'Plain', bold: true },
  { key: 'cinzel', label: 'Chiselled', bold: true },
  { key: 'pirata-one', label: 'Broken black' },
  { key: 'special-elite', label: 'Worn typewriter' },
  { key: 'caveat', label: 'Handwritten', bold: true },
] as const satisfies readonly { key: string; label: string; bold?: boolean }[];
export type ShippedFont = (typeof SHIPPED_FONTS)[number]['key'];
export const ALIGNMENTS = ['left', 'centre', 'right'] as const;
export const WEIGHTS = ['regular', 'bold'] as const;

export const FontSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('shipped'), key: z.enum(SHIPPED_FONTS.map((f) => f.key)) }),
  z.object({ kind: z.literal('own'), blob: BlobHashSchema, name: z.string().max(120) }),
]);
export type FontChoice = z.infer<typeof FontSchema>;

export const MOST_BLOCKS = 24;
export const MOST_BLOCK_TEXT = 2000;

export const BlockSchema = z.object({
  id: z.uuid(),
  text: z.string().max(MOST_BLOCK_TEXT, `A block has at most ${MOST_BLOCK_TEXT} characters.`).default('Mark'),
  font: FontSchema.default({ kind: 'shipped', key: 'alfa-slab-one' }),
  weight: z.enum(WEIGHTS).default('regular'),
  size: setting({
    label: 'Size',
    unit: '%',
    min: 1,
    max: 100,
    step: 0.5,
    fallback: 20,
    scale: 'log',
    help: 'Height of a line’s em, in per cent of the square’s side',
  }),
  spacing: setting({
    label: 'Spacing',
    unit: '%',
    min: -30,
    max: 100,
    step: 0.5,
    fallback: 0,
    help: 'Added between letters, in per cent of the size',
  }),
  lineHeight: setting({
    label: 'Line height',
    unit: '%',
    min: 50,
    max: 300,
    step: 1,
    fallback: 110,
    help: 'From line to line, in per cent of the size',
  }),
  align: z.enum(ALIGNMENTS).default('centre'),
  arc: setting({
    label: 'Arc',
    unit: '°',
    min: -360,
    max: 360,
    step: 1,
    fallback: 0,
    help: 'Bends the lines round a circle: how much of it the widest line covers',
  }),
  grey: setting({
    label: 'Grey',
    unit: 'grey',
    min: 0,
    max: 1,
    step: 0.01,
    fallback: 1,
    help: 'Height of the letters: 0.5 is half',
  }),
  outline: setting({
    label: 'Outline',
    unit: '%',
    min: 0,
    max: 20,
    step: 0.1,
    fallback: 0,
    help: 'Draws the outline alone, so wide, in per cent of the size; 0 fills the letters',
  }),
  x: setting({
    label: 'Across',
    unit: '%',
    min: -50,
    max: 150,
    step: 0.5,
    fallback: 50,
    help: 'Middle of the block, from the left side',
  }),
  y: setting({
    label: 'Down',
    unit: '%',
    min: -50,
    max: 150,
    step: 0.5,
    fallback: 50,
    help: 'Middle of the block, from the top',
  }),
  turn: setting({
    label: 'Turn',
    unit: '°',
    min: -180,
    max: 180,
    step: 1,
    fallback: 0,
    help: 'Turns the block, anticlockwise',
  }),
});
export type Block = z.infer<typeof BlockSchema>;

export const LetteringFields = {
  kind: z.literal('lettering'),
  blocks: z.array(BlockSchema).min(1, 'Lettering needs a block.').max(MOST_BLOCKS, `At most ${MOST_BLOCKS} blocks.`),
};
