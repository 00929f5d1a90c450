/** A scanned or photographed picture with one or many marks on it. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { OutlineSchema, PaperSchema } from './recipe';
import { setting } from './setting';

/** Larger pictures are refused before they are decoded. */
export const SHEET_MOST_PIXELS = 150e6;
/** Marks are found on a copy of at most this many pixels a side. */
export const FIND_SIDE = 2048;

export const POLARITIES = ['auto', 'dark', 'light'] as const;

export const FindSchema = z.object({
  polarity: z.enum(POLARITIES).default('auto'),
  sensitivity: setting({
    label: 'Faint marks',
    unit: '%',
    min: 0,
    max: 100,
    step: 1,
    fallback: 50,
    help: 'Higher finds fainter marks, and more of the paper’s grain',
  }),
  join: setting({
    label: 'Join',
    unit: '%',
    min: 0,
    max: 8,
    step: 0.05,
    fallback: 0.6,
    help: 'Ink closer than this belongs to one mark, in per cent of the longer side',
  }),
  smallest: setting({
    label: 'Smallest mark',
    unit: '%',
    min: 0.1,
    max: 30,
    step: 0.1,
    fallback: 1.6,
    scale: 'log',
    help: 'What is smaller is a speck, in per cent of the longer side',
  }),
});
export type Find = z.infer<typeof FindSchema>;

export const MarkSchema = z.object({
  id: z.uuid(),
  /** 0–1 of the sheet's width and height. */
  outlines: z.array(OutlineSchema).min(1).max(200),
  included: z.boolean().default(true),
  /** Drawn, split or joined by hand: finding again leaves it. */
  byHand: z.boolean().default(false),
});
export type Mark = z.infer<typeof MarkSchema>;
export const MOST_MARKS = 300;

export const SheetFields = {
  kind: z.literal('sheet'),
  file: z.object({
    /** The file as it was given. */
    blob: BlobHashSchema,
    name: z.string().max(200),
    /** Upright size, after the camera's own turn. */
    width: z.number().int().positive(),
    height: z.number().int().positive(),
    what: z.string().max(120),
  }),
  find: FindSchema.prefault({}),
  paper: PaperSchema.nullable().default(null),
  dark: z.boolean().default(true),
  /** Null: not looked for yet. */
  marks: z.array(MarkSchema).max(MOST_MARKS, `At most ${MOST_MARKS} marks a sheet.`).nullable().default(null),
  cut: z
    .object({
      size: setting({
        label: 'Size',
        unit: 'px',
        min: 32,
        max: 4096,
        step: 1,
        fallback: 512,
        scale: 'log',
        help: 'Pixels per side of each alpha',
      }),
      margin: setting({
        label: 'Margin',
        unit: '%',
        min: 0,
        max: 30,
        step: 0.5,
        fallback: 6,
        help: 'Kept clear on each side',
      }),
      straighten: z.boolean().default(false),
    })
    .prefault({}),
};
