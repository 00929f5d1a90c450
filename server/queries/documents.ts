/** Reading and writing the kept documents. Every save is one transaction and keeps what it replaced. */
import type { Transaction } from '@electric-sql/pglite';
import { kindOf, readStored, SINGULAR, type Collection, type Documents } from '../collections';
import type { Database } from '../database';
import { Problem } from '../problem';

export interface Kept<C extends Collection> {
  doc: Documents[C];
  revision: number;
  base: boolean;
  updatedAt: string;
}

export interface Listed<C extends Collection> {
  items: Kept<C>[];
  /** Rows that could not be read; they stay where they are. */
  skipped: { id: string; name: string; reason: string }[];
}

interface Row {
  id: string;
  name: string;
  doc: unknown;
  revision: number;
  base: boolean;
  updated_at: Date;
}

export async function listDocuments<C extends Collection>(db: Database, collection: C): Promise<Listed<C>> {
  const { rows } = await db.query<Row>(
    `SELECT id, name, doc, revision, ${baseColumn(collection)}, updated_at FROM ${collection} WHERE deleted_at IS NULL ORDER BY created_at, name`,
  );
  const out: Listed<C> = { items: [], skipped: [] };
  for (const row of rows) {
    const read = readStored(collection, row.doc);
    if (read.ok) out.items.push({ doc: read.value, revision: row.revision, base: row.base, updatedAt: row.updated_at.toISOString() });
    else out.skipped.push({ id: row.id, name: row.name, reason: read.reason });
  }
  return out;
}

export async function getDocument<C extends Collection>(db: Database, collection: C, id: string): Promise<Kept<C>> {
  const { rows } = await db.query<Row>(
    `SELECT id, name, doc, revision, ${baseColumn(collection)}, updated_at FROM ${collection} WHERE id = $1 AND deleted_at IS NULL`, [id],
  );
  const row = rows[0];
  if (!row) throw missing(collection, id);
  const read = readStored(collection, row.doc);
  if (!read.ok) throw new Problem(422, 'unreadable', `“${row.name}” can’t be opened. ${read.reason}`, { id });
  return { doc: read.value, revision: row.revision, base: row.base, updatedAt: row.updated_at.toISOString() };
}

export interface Save<C extends Collection> {
  doc: Documents[C];
  /** The revision the change was made on; null for a new document. */
  revision: number | null;
  picture: Uint8Array | null;
  base?: boolean;
  /** Brushes that get another picture because of this save. */
  followers?: readonly { id: string; picture: Uint8Array }[];
}

/** Returns the new revision. */
export async function saveDocument<C extends Collection>(db: Database, collection: C, save: Save<C>): Promise<number> {
  const { doc, revision, picture } = save;
  return db.transaction(async (tx) => {
    const { rows } = await tx.query<{ revision: number; doc: unknown; deleted: boolean; base: boolean }>(
      `SELECT revision, doc, deleted_at IS NOT NULL AS deleted, ${baseColumn(collection)} FROM ${collection} WHERE id = $1`, [doc.id],
    );
    const old = rows[0];
    if (old?.base) throw new Problem(403, 'base-brush', `“${doc.card.name}” is a base brush and stays as it is. Save it as a copy.`);
    if (old?.deleted || (!old && revision !== null)) {
      throw new Problem(409, 'deleted-elsewhere', `“${doc.card.name}” was deleted in another window since it was opened here. Keep yours as a copy.`, { id: doc.id });
    }
    if ((old?.revision ?? null) !== revision) {
      throw new Problem(409, 'changed-elsewhere', `“${doc.card.name}” was changed in another window since it was opened here. Keep yours as a copy, or load the other.`, {
        id: doc.id, stored: old?.revision ?? null,
      });
    }
    await refuseTakenName(tx, collection, doc.card.name, doc.id);
    if (!old) {
      const extra = collection === 'brushes' ? ', base' : '';
      const values = [doc.id, doc.card.name, kindOf(collection, doc), JSON.stringify(doc), picture];
      await tx.query(
        `INSERT INTO ${collection} (id, name, kind, doc, picture${extra}) VALUES ($1, $2, $3, $4, $5${extra ? ', $6' : ''})`,
        extra ? [...values, save.base ?? false] : values,
      );
      return 1;
    }
    await tx.query('INSERT INTO revisions (collection, id, revision, doc) VALUES ($1, $2, $3, $4)', [collection, doc.id, old.revision, JSON.stringify(old.doc)]);
    await tx.query(
      `UPDATE ${collection} SET name = $2, kind = $3, doc = $4, picture = coalesce($5, picture), revision = revision + 1, updated_at = now() WHERE id = $1`,
      [doc.id, doc.card.name, kindOf(collection, doc), JSON.stringify(doc), picture],
    );
    for (const { id, picture: shown } of save.followers ?? []) await tx.query('UPDATE brushes SET picture = $2 WHERE id = $1', [id, shown]);
    return old.revision + 1;
  });
}

/** Deleting only hides, so that it can be taken back. */
export async function deleteDocument(db: Database, collection: Collection, id: string): Promise<void> {
  await db.transaction(async (tx) => {
    const { rows } = await tx.query<{ name: string; base: boolean }>(
      `SELECT name, ${baseColumn(collection)} FROM ${collection} WHERE id = $1 AND deleted_at IS NULL`, [id],
    );
    if (!rows[0]) throw missing(collection, id);
    if (rows[0].base) throw new Problem(403, 'base-brush', `“${rows[0].name}” is a base brush and can’t be deleted.`);
    await tx.query(`UPDATE ${collection} SET deleted_at = now() WHERE id = $1`, [id]);
    if (collection === 'brushes') await tx.query('DELETE FROM belt WHERE brush_id = $1', [id]);
  });
}

export async function restoreDocument(db: Database, collection: Collection, id: string): Promise<void> {
  await db.transaction(async (tx) => {
    const { rows } = await tx.query<{ name: string }>(`SELECT name FROM ${collection} WHERE id = $1 AND deleted_at IS NOT NULL`, [id]);
    if (!rows[0]) throw missing(collection, id);
    await refuseTakenName(tx, collection, rows[0].name, id);
    await tx.query(`UPDATE ${collection} SET deleted_at = NULL WHERE id = $1`, [id]);
  });
}

export async function getPicture(db: Database, collection: Collection, id: string): Promise<Uint8Array> {
  const { rows } = await db.query<{ picture: Uint8Array | null }>(`SELECT picture FROM ${collection} WHERE id = $1`, [id]);
  const picture = rows[0]?.picture;
  if (!picture) throw new Problem(404, 'no-picture', `This ${SINGULAR[collection]} has no picture.`);
  return picture;
}

async function refuseTakenName(tx: Transaction, collection: Collection, name: string, id: string): Promise<void> {
  const { rows } = await tx.query(`SELECT 1 FROM ${collection} WHERE lower(name) = lower($1) AND id <> $2 AND deleted_at IS NULL`, [name, id]);
  if (rows.length > 0) {
    throw new Problem(409, 'name-taken', `There is already a ${SINGULAR[collection]} called “${name}”. Choose another name.`, { name });
  }
}

function baseColumn(collection: Collection): string {
  return collection === 'brushes' ? 'base' : 'false AS base';
}

function missing(collection: Collection, id: string): Problem {
  return new Problem(404, 'not-found', `This ${SINGULAR[collection]} isn’t here; it may have been deleted.`, { id });
}
