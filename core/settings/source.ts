/** Where a form comes from: a slab, a sheet, a scan, lettering or a pattern. */
import { z } from 'zod';
import { BlobHashSchema } from './blob';
import { CardSchema } from './card';
import { CastSettingsSchema } from './frame';
import { LetteringFields } from './lettering';
import { PatternFields } from './pattern';
import { SetFormSchema } from './setForm';
import type { Migration } from './read';
import { ReferenceSchema } from './reference';
import { ScanFields } from './scan';
import { SheetFields } from './sheet';
import { SymmetrySchema } from './symmetry';

export const SOURCE_VERSION = 4;
/**
 * Version 2 added levels, masks, set forms, references, symmetry and history to slabs, version 3 parts and other kinds;
 * all have defaults. Until version 3 set forms were called pieces, and included marks taken.
 */
export const SOURCE_MIGRATIONS: Record<number, Migration> = {
  1: (doc) => doc,
  2: (doc) => doc,
  3: ({ pieces, ...doc }) => ({
    ...doc,
    ...(pieces === undefined ? {} : { setForms: pieces }),
    ...(Array.isArray(doc['marks']) ? { marks: doc['marks'].map(includedMark) } : {}),
  }),
};

function includedMark(mark: unknown): unknown {
  if (typeof mark !== 'object' || mark === null || !('taken' in mark)) return mark;
  const { taken, ...rest } = mark;
  return { ...rest, included: taken };
}

/** Cells a side that a new slab may have. */
export const SLAB_CELLS = [256, 512, 1024, 2048] as const;
/** Cells a side of every level: a slab has (cells + 1)² vertices. */
export const LEVEL_CELLS = [32, 64, 128, 256, 512, 1024, 2048] as const;
/** Side of every slab in body units. */
export const SLAB_SIDE = 2;

const head = { version: z.literal(SOURCE_VERSION), id: z.uuid(), card: CardSchema };

export const SlabSchema = z.object({
  ...head,
  kind: z.literal('slab'),
  cells: z.union(LEVEL_CELLS.map((n) => z.literal(n))),
  /** Little-endian float32 x, y, z of every vertex, row by row from the lower left; null is the untouched plane. */
  blob: BlobHashSchema.nullable(),
  /** Float32 masks in the same order; null is none. */
  mask: BlobHashSchema.nullable().default(null),
  /**
   * Finer levels that were stepped down from, finest first: their places, and those of the level below as they were
   * then.
   */
  upper: z
    .array(
      z.object({ cells: z.union(LEVEL_CELLS.map((n) => z.literal(n))), fine: BlobHashSchema, base: BlobHashSchema }),
    )
    .max(6)
    .default([]),
  /** The last undo steps. */
  history: BlobHashSchema.nullable().default(null),
  symmetry: SymmetrySchema.prefault({}),
  setForms: z.array(SetFormSchema).max(64, 'At most 64 set forms at once; bake some.').default([]),
  references: z.array(ReferenceSchema).max(12, 'At most 12 reference pictures a slab.').default([]),
  cast: CastSettingsSchema.prefault({}),
});
export const SheetSchema = z.object({ ...head, ...SheetFields });
export const ScanSchema = z.object({ ...head, ...ScanFields });
export const LetteringSchema = z.object({ ...head, ...LetteringFields });
export const PatternSchema = z.object({ ...head, ...PatternFields });
export const SourceSchema = z.discriminatedUnion('kind', [
  SlabSchema,
  SheetSchema,
  ScanSchema,
  LetteringSchema,
  PatternSchema,
]);
export type Slab = z.infer<typeof SlabSchema>;
export type Sheet = z.infer<typeof SheetSchema>;
export type Scan = z.infer<typeof ScanSchema>;
export type Lettering = z.infer<typeof LetteringSchema>;
export type Pattern = z.infer<typeof PatternSchema>;
export type Source = z.infer<typeof SourceSchema>;

/** Every blob that a source names. */
export function blobsOf(source: Source): string[] {
  switch (source.kind) {
    case 'slab':
      return slabBlobs(source);
    case 'sheet':
      return [source.file.blob];
    case 'scan':
      return [source.mesh];
    case 'lettering':
      return source.blocks.flatMap((b) => (b.font.kind === 'own' ? [b.font.blob] : []));
    case 'pattern':
      return [];
  }
}

function slabBlobs(slab: Slab): string[] {
  return [
    slab.blob,
    slab.mask,
    slab.history,
    ...slab.upper.flatMap((level) => [level.fine, level.base]),
    ...slab.references.map((r) => r.blob),
    ...slab.setForms.flatMap((p) => (p.part ? [p.part.mesh, p.part.heights] : [])),
  ].filter((hash) => hash !== null);
}
