/** A backup is a ZIP: documents and their earlier revisions as lines of JSON, stored data by its SHA-256. */
import { z } from 'zod';
import { BlobHashSchema } from '#core/settings';
import { COLLECTIONS } from '#core/stored';

export const BACKUP_FORMAT = 'mold-stamp-backup';
export const BACKUP_VERSION = 1;
export const BACKUP_MANIFEST = 'backup.json';
export const LINES = { documents: 'documents.jsonl', revisions: 'revisions.jsonl' } as const;
export const dataPath = (hash: string): string => `data/${hash}`;

const Digest = BlobHashSchema;
const Lines = z.object({
  sha256: Digest,
  bytes: z.number().int().nonnegative(),
  lines: z.number().int().nonnegative(),
});

export const BackupManifestSchema = z.object({
  format: z.literal(BACKUP_FORMAT, 'It isn’t a backup.'),
  version: z.number().int().positive(),
  madeAt: z.iso.datetime(),
  documents: Lines,
  revisions: Lines,
  /** Ids of the brushes at hand, in their order. */
  belt: z.array(z.uuid()).max(1000),
  data: z.array(z.object({ blob: Digest, bytes: z.number().int().nonnegative() })),
});
export type BackupManifest = z.infer<typeof BackupManifestSchema>;

/** A document as it lies in the store, of whatever version. */
export const DocumentLineSchema = z.object({
  collection: z.enum(COLLECTIONS),
  id: z.uuid(),
  revision: z.number().int().positive(),
  base: z.boolean(),
  createdAt: z.iso.datetime(),
  updatedAt: z.iso.datetime(),
  /** When it went to the trash. */
  deletedAt: z.iso.datetime().nullable(),
  doc: z.unknown(),
});
export type DocumentLine = z.infer<typeof DocumentLineSchema>;

/** What a document was before. */
export const RevisionLineSchema = z.object({
  collection: z.enum(COLLECTIONS),
  id: z.uuid(),
  revision: z.number().int().positive(),
  savedAt: z.iso.datetime(),
  name: z.string().max(80),
  doc: z.unknown(),
});
export type RevisionLine = z.infer<typeof RevisionLineSchema>;

export type ReadManifest = { ok: true; value: BackupManifest } | { ok: false; reason: string };

export function readBackupManifest(value: unknown): ReadManifest {
  const { format, version } = (value ?? {}) as { format?: unknown; version?: unknown };
  if (format === BACKUP_FORMAT && typeof version === 'number' && version > BACKUP_VERSION)
    return { ok: false, reason: 'It was written by a newer Mold Stamp. Update the program to restore it.' };
  const read = BackupManifestSchema.safeParse(value);
  return read.success ? { ok: true, value: read.data } : { ok: false, reason: 'Its table of contents is damaged.' };
}
