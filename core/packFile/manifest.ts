/**
 * What a pack file says of itself: `pack.json`, the last entry of the ZIP. It lists every other entry with its size and
 * its SHA-256, and for stored bytes what they are once they are decoded.
 */
import { z } from 'zod';
import {
  AlphaSchema,
  BlobHashSchema,
  BrushSchema,
  PackSchema,
  PaletteSchema,
  PartSchema,
  readDocument,
  SourceSchema,
  type Migration,
  type ReadResult,
} from '#core/settings';

export const PACK_FILE_FORMAT = 'mold-stamp-pack';
export const PACK_FILE_VERSION = 1;
export const MANIFEST_PATH = 'pack.json';
/** `migrations[v]` turns version v into v + 1. */
export const PACK_FILE_MIGRATIONS: Record<number, Migration> = {};

/** Kinds of document that travel in a pack, in the order in which they are kept: what others name comes first. */
export const TRAVELLING = ['sources', 'alphas', 'parts', 'palettes', 'brushes'] as const;
export type Travelling = (typeof TRAVELLING)[number];

/**
 * How stored bytes lie in their entry. `grey16`: a grey PNG of 16 bits. `grey32f`: an EXR of one float channel, Y.
 * `vector32f`: an EXR of three, R, G and B for right, up and out. `rgba8`: a PNG of 8 bits with transparency. `mesh`: a
 * GLB. `bytes`: as they are.
 */
export const DATA_KINDS = ['grey16', 'grey32f', 'vector32f', 'rgba8', 'mesh', 'bytes'] as const;
export type DataKind = (typeof DATA_KINDS)[number];

const text = z.string().max(300).default('');
/** Whose it is, where they are found, and what may be done with it. */
export const ProvenanceSchema = z.object({ maker: text, site: text, licence: text, pack: text });
export type Provenance = z.infer<typeof ProvenanceSchema>;

const PathSchema = z.string().min(1).max(512);
const listed = {
  path: PathSchema,
  /** Of the entry, unpacked. */
  bytes: z.number().int().min(0),
  sha256: BlobHashSchema,
};
const DocumentEntrySchema = z.object({
  ...listed,
  collection: z.enum(TRAVELLING),
  id: z.uuid(),
  name: z.string().max(80),
  provenance: ProvenanceSchema,
});
const DataEntrySchema = z.object({
  ...listed,
  kind: z.enum(DATA_KINDS),
  /** SHA-256 of what it decodes to: documents name it by this. */
  blob: BlobHashSchema,
  provenance: ProvenanceSchema,
});
const PictureEntrySchema = z.object({ ...listed, brush: z.uuid() });
export type DocumentEntry = z.infer<typeof DocumentEntrySchema>;
export type DataEntry = z.infer<typeof DataEntrySchema>;
export type PictureEntry = z.infer<typeof PictureEntrySchema>;

export const ManifestSchema = z.object({
  format: z.literal(PACK_FILE_FORMAT),
  version: z.literal(PACK_FILE_VERSION),
  name: z.string().min(1).max(80),
  /** Null of brushes that were chosen one by one. */
  pack: z.object(PackSchema.shape).nullable(),
  documents: z.array(DocumentEntrySchema).max(60_000),
  data: z.array(DataEntrySchema).max(120_000),
  pictures: z.array(PictureEntrySchema).max(20_000),
});
export type Manifest = z.infer<typeof ManifestSchema>;

/** A document’s entry. */
export const DOCUMENT_SCHEMAS = {
  sources: SourceSchema,
  alphas: AlphaSchema,
  parts: PartSchema,
  palettes: z.object(PaletteSchema.shape),
  brushes: BrushSchema,
} as const satisfies Record<Travelling, z.ZodType>;

export function readManifest(value: unknown): ReadResult<Manifest> {
  if (typeof value !== 'object' || value === null || (value as { format?: unknown }).format !== PACK_FILE_FORMAT)
    return { ok: false, reason: 'It is a ZIP, but not a pack of brushes: its pack.json says something else.' };
  const read = readDocument('pack file', ManifestSchema, PACK_FILE_VERSION, value, PACK_FILE_MIGRATIONS);
  if (!read.ok || read.value.pack === null) return read;
  const pack = PackSchema.safeParse(read.value.pack);
  return pack.success ? read : { ok: false, reason: 'The pack file is broken: a brush is in its pack twice.' };
}

/** The published JSON Schema: `pack.json`, and the entry of each kind of document. */
export function packFileSchema(): Record<string, unknown> {
  const of = (schema: z.ZodType): Record<string, unknown> => {
    const own: Record<string, unknown> = z.toJSONSchema(schema, { io: 'output', unrepresentable: 'any' });
    delete own['$schema'];
    return own;
  };
  const entry = (schema: z.ZodType): Record<string, unknown> =>
    of(z.object({ provenance: ProvenanceSchema, document: schema }));
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    $id: 'mold-stamp-pack-1',
    title: 'Pack file',
    description: 'pack.json of a pack file; $defs has the entries of its documents by their kind.',
    ...of(ManifestSchema),
    $defs: Object.fromEntries(TRAVELLING.map((kind) => [kind, entry(DOCUMENT_SCHEMAS[kind])])),
  };
}
