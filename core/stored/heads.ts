/**
 * What a list says of a document: enough to show it, find it, stamp with it and say what it names, without opening it.
 */
import { z } from 'zod';
import {
  AlphaSchema,
  BeltSchema,
  BrushSchema,
  CardSchema,
  LEVEL_CELLS,
  OwnBodySchema,
  PackSchema,
  PaletteSchema,
  PartSchema,
  PATTERN_FORMS,
  type OwnBody,
  type Source,
} from '#core/settings';
import { OwnTrialSchema, type OwnTrial } from '#core/trial';

const head = { id: z.uuid(), card: CardSchema.omit({ notes: true }) };
const { form, tooth, touch, stroke } = BrushSchema.shape;

export const BrushHeadSchema = z.object({
  ...head,
  touch: touch.unwrap().pick({ action: true }),
  stroke: stroke.unwrap().pick({ type: true }),
  form: form.unwrap().pick({ alphaId: true }),
  tooth: tooth.unwrap().pick({ alphaId: true }),
  parts: z.object({ entries: z.array(z.object({ partId: z.uuid() })).default([]) }).prefault({}),
});
export type BrushHead = z.infer<typeof BrushHeadSchema>;

/** All but the recipe: whoever stamps with it needs no more. */
export const AlphaHeadSchema = z.object({
  ...AlphaSchema.pick({ size: true, relief: true, ground: true, format: true, blob: true, report: true }).shape,
  ...head,
  lineage: AlphaSchema.shape.lineage.pick({ sourceId: true, sourceRevision: true, patchId: true, colours: true }),
});
export type AlphaHead = z.infer<typeof AlphaHeadSchema>;

const count = z.number().int().min(0);
export const SourceHeadSchema = z.discriminatedUnion('kind', [
  z.object({ ...head, kind: z.literal('slab'), cells: z.union(LEVEL_CELLS.map((n) => z.literal(n))) }),
  /** Pixels; the marks are null until they were looked for. */
  z.object({ ...head, kind: z.literal('sheet'), width: count, height: count, marks: count.nullable() }),
  z.object({ ...head, kind: z.literal('scan'), triangles: count, patches: count }),
  z.object({ ...head, kind: z.literal('lettering'), blocks: count }),
  z.object({ ...head, kind: z.literal('pattern'), form: z.enum(PATTERN_FORMS) }),
]);
export type SourceHead = z.infer<typeof SourceHeadSchema>;

export const BodyHeadSchema = OwnBodySchema.omit({ version: true, pieces: true, shapes: true, painting: true }).extend({
  /** Something is painted on it. */
  painted: z.boolean().default(false),
  ...head,
  pieces: z.number().int().min(0).default(0),
});
export type BodyHead = z.infer<typeof BodyHeadSchema>;

export const PartHeadSchema = PartSchema.omit({ version: true }).extend(head);
export type PartHead = z.infer<typeof PartHeadSchema>;

/** All of it, its notes too: a page changes packs as its list has them. */
export const PackHeadSchema = z.object(PackSchema.shape).omit({ version: true });
export type PackHead = z.infer<typeof PackHeadSchema>;

/** All of it. */
export const BeltHeadSchema = z.object({ ...BeltSchema.shape, ...head }).omit({ version: true });
export type BeltHead = z.infer<typeof BeltHeadSchema>;

/** All of it: palettes are small. */
export const PaletteHeadSchema = z.object({ ...PaletteSchema.shape, ...head }).omit({ version: true });
export type PaletteHead = z.infer<typeof PaletteHeadSchema>;

export const TrialHeadSchema = OwnTrialSchema.omit({ version: true }).extend({ ...head, strokes: count });
export type TrialHead = z.infer<typeof TrialHeadSchema>;

export function headOfSource(source: Source): SourceHead {
  return SourceHeadSchema.parse({ ...source, ...factsOf(source) });
}

function factsOf(source: Source): object {
  switch (source.kind) {
    case 'slab':
      return { cells: source.cells };
    case 'sheet':
      return { width: source.file.width, height: source.file.height, marks: source.marks?.length ?? null };
    case 'scan':
      return { triangles: source.triangles, patches: source.patches.length };
    case 'lettering':
      return { blocks: source.blocks.length };
    case 'pattern':
      return { form: source.grow.form };
  }
}

export function headOfBody({ pieces, painting, ...body }: OwnBody): BodyHead {
  return BodyHeadSchema.parse({ ...body, pieces: pieces.length, painted: painting !== null });
}

export function headOfTrial(trial: OwnTrial): TrialHead {
  return TrialHeadSchema.parse({ ...trial, strokes: trial.strokes.length });
}

/** The alphas and parts that a brush names; null where it names none or they are gone. */
export interface BrushAlphas {
  form: AlphaHead | null;
  tooth: AlphaHead | null;
  /** Of its set, those that are there. */
  parts: readonly PartHead[];
}
