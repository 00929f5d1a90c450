/** Reading and writing the kept documents. Every save is one transaction and keeps what it replaced. */
import { headOf, readStored, SINGULAR, type Collection, type Documents, type Heads, type Kept, type Listed } from '#core/kept';
import type { ReadResult } from '#core/settings';
import type { Database, Queries } from '../database';
import { Problem } from '../problem';
import { judged, type Judged } from '../reading/judged';
import { read } from '../reading/read';
import type { Utf8 } from '../store/messages';
import { needReferences } from './references';

export interface List<C extends Collection> {
  items: Listed<C>[];
  /** Rows that could not be read; they stay where they are. */
  skipped: { id: string; name: string; reason: string }[];
  next: string | null;
}

interface Row {
  id: string;
  name: string;
  doc: unknown;
  revision: number;
  base: boolean;
  updated_at: Date;
}

export interface Page {
  /** Where the last page ended; null begins. */
  after: string | null;
  limit: number;
}

interface HeadRow<C extends Collection> extends Row {
  head: Heads[C] | null;
  /** The place in the list. */
  at: string;
}

/** A page of a list, oldest first. `next` is where the following one begins, null after the last. */
export async function listDocuments<C extends Collection>(db: Database, collection: C, { after, limit }: Page): Promise<List<C>> {
  const from = after === null ? null : placeOf(after);
  const { rows } = await db.query<HeadRow<C>>(
    `SELECT id, name, head, CASE WHEN head IS NULL THEN doc END AS doc, revision, ${baseColumn(collection)}, updated_at, extract(epoch FROM created_at)::text AS at FROM ${collection}
     WHERE deleted_at IS NULL ${from ? 'AND (created_at, id) > (to_timestamp($2::numeric), $3::uuid)' : ''} ORDER BY created_at, id LIMIT $1`,
    from ? [limit + 1, from.at, from.id] : [limit + 1],
  );
  const last = rows[limit - 1];
  const out: List<C> = { items: [], skipped: [], next: rows.length > limit && last ? `${last.at} ${last.id}` : null };
  for (const row of rows.slice(0, limit)) {
    const head = row.head ? { ok: true, value: row.head } as const : headOfStored(collection, row.doc);
    if (head.ok) out.items.push({ ...head.value, revision: row.revision, base: row.base, updatedAt: row.updated_at.toISOString() });
    else out.skipped.push({ id: row.id, name: row.name, reason: head.reason });
  }
  return out;
}

/** Of a row that has no head: it was not written by a save. */
function headOfStored<C extends Collection>(collection: C, doc: unknown): ReadResult<Heads[C]> {
  const read = readStored(collection, doc);
  return read.ok ? { ok: true, value: headOf(collection, read.value) } : read;
}

function placeOf(after: string): { at: string; id: string } {
  const found = /^(\d+(?:\.\d+)?) ([0-9a-f-]{36})$/.exec(after);
  if (!found) throw new Problem(422, 'invalid', 'A list goes on from the place that the page before it named.');
  return { at: found[1]!, id: found[2]! };
}

/** Rises with every change of a collection. */
const changed = new WeakMap<Database, Map<Collection, number>>();

/** Names the state that a collection is in; the same text, the same list. */
export function stateOf(db: Database, collection: Collection): string {
  return `${STARTED}-${changed.get(db)?.get(collection) ?? 0}`;
}

/** Another start begins to count anew. */
const STARTED = Date.now().toString(36);

function noteChange(db: Database, collection: Collection): void {
  const counts = changed.get(db) ?? new Map<Collection, number>();
  counts.set(collection, (counts.get(collection) ?? 0) + 1);
  changed.set(db, counts);
}

/** A document as it lies in the store, of whatever version, as JSON. */
export interface Stored {
  name: string;
  /** UTF-8. */
  text: Uint8Array;
  revision: number;
  base: boolean;
  updatedAt: string;
}

export async function getStored(db: Database, collection: Collection, id: string): Promise<Stored> {
  const { rows } = await db.query<Omit<Stored, 'updatedAt'> & { updated_at: Date }>(
    `SELECT name, doc::text AS text, revision, ${baseColumn(collection)}, updated_at FROM ${collection} WHERE id = $1 AND deleted_at IS NULL`, [id], 'text',
  );
  const [row] = rows;
  if (!row) throw missing(collection, id);
  const { updated_at: at, ...stored } = row;
  return { ...stored, updatedAt: at.toISOString() };
}

/** A small document, read at once. */
export async function getDocument<C extends Collection>(db: Database, collection: C, id: string): Promise<Kept<C>> {
  const { name, text, ...about } = await getStored(db, collection, id);
  return { doc: JSON.parse(Buffer.from(read<'stored'>({ kind: 'stored', collection, name }, text)).toString()) as Documents[C], ...about };
}

/** What lists say of one document. */
export async function getHead<C extends Collection>(db: Database, collection: C, id: string): Promise<{ head: Heads[C]; revision: number }> {
  const { rows } = await db.query<{ head: Heads[C] | null; revision: number }>(`SELECT head, revision FROM ${collection} WHERE id = $1 AND deleted_at IS NULL`, [id]);
  const [row] = rows;
  if (!row) throw missing(collection, id);
  return { head: row.head ?? headOf(collection, (await getDocument(db, collection, id)).doc), revision: row.revision };
}

export interface Save {
  /** The revision the change was made on; null for a new document. */
  revision: number | null;
  base?: boolean;
  /** Where it is at hand already; otherwise it is drawn when it is asked for. */
  picture?: Uint8Array;
}

/** Reads the document first; returns the new revision. */
export async function saveDocument<C extends Collection>(db: Database, collection: C, { doc, ...save }: Save & { doc: Documents[C] }): Promise<number> {
  return saveJudged(db, judged(collection, doc), save);
}

/** Returns the new revision. What the document names must be there. One statement looks, one writes all of it or nothing. */
export async function saveJudged(db: Database, doc: Judged, save: Save): Promise<number> {
  const { revision } = save;
  const { collection } = doc;
  const next = await db.together(async (tx) => {
    await needReferences(tx, SINGULAR[collection], doc.references);
    const old = await standing(tx, doc);
    if (old.base) throw new Problem(403, 'base-brush', `“${doc.name}” is a base brush and stays as it is. Save it as a copy.`);
    if (old.deleted || (old.revision === null && revision !== null)) {
      throw new Problem(409, 'deleted-elsewhere', `“${doc.name}” was deleted in another window since it was opened here. Keep yours as a copy.`, { id: doc.id });
    }
    if (old.revision !== revision) {
      throw new Problem(409, 'changed-elsewhere', `“${doc.name}” was changed in another window since it was opened here. Keep yours as a copy, or load the other.`, {
        id: doc.id, stored: old.revision,
      });
    }
    if (old.taken) throw nameTaken(collection, doc.name);
    await (old.revision === null ? insert(tx, doc, save) : update(tx, doc, save));
    return (old.revision ?? 0) + 1;
  });
  noteChange(db, collection);
  return next;
}

interface Standing {
  /** Null where there is none. */
  revision: number | null;
  deleted: boolean;
  base: boolean;
  /** Another one has the name. */
  taken: boolean;
}

async function standing(tx: Queries, { collection, id, name }: Judged): Promise<Standing> {
  const { rows } = await tx.query<Standing>(
    `SELECT (SELECT revision FROM ${collection} WHERE id = $1) AS revision,
       coalesce((SELECT deleted_at IS NOT NULL FROM ${collection} WHERE id = $1), false) AS deleted,
       coalesce((SELECT base FROM (SELECT ${baseColumn(collection)}, id FROM ${collection}) AS own WHERE id = $1), false) AS base,
       EXISTS (SELECT 1 FROM ${collection} WHERE lower(name) = lower($2) AND id <> $1 AND deleted_at IS NULL) AS taken`, [id, name],
  );
  return rows[0]!;
}

/** Names of a statement's parts that write down what the document names. */
const NAMED = `named AS (
  INSERT INTO refs (collection, id, revision, kind, target) SELECT $6, $1, $7, kind, target FROM unnest($8::text[], $9::text[]) AS n (kind, target) ON CONFLICT DO NOTHING)`;

function values({ collection, id, name, kind, text, spare, head, references: { blobs, alphas } }: Judged, { revision, picture }: Save): unknown[] {
  const kinds = [...blobs.map(() => 'blob'), ...alphas.map(() => 'alpha')];
  return [id, name, kind, { utf8: spare ?? text, given: spare !== undefined } satisfies Utf8, picture ?? null, collection, (revision ?? 0) + 1, kinds, [...blobs.map((b) => b.hash), ...alphas], head];
}

async function insert(tx: Queries, doc: Judged, save: Save): Promise<void> {
  const { collection } = doc;
  const own = collection === 'brushes';
  await tx.query(
    `WITH ${NAMED}
     INSERT INTO ${collection} (id, name, kind, doc, head, picture, pictured${own ? ', base' : ''}) VALUES ($1, $2, $3, $4, $10, $5, CASE WHEN $5::bytea IS NULL THEN 0 ELSE 1 END${own ? ', $11' : ''})`,
    [...values(doc, save), ...(own ? [save.base ?? false] : [])],
  );
}

async function update(tx: Queries, doc: Judged, save: Save): Promise<void> {
  const { collection } = doc;
  await tx.query(
    `WITH kept AS (INSERT INTO revisions (collection, id, revision, doc) SELECT $6, id, revision, doc FROM ${collection} WHERE id = $1), ${NAMED}
     ${collection === 'alphas' ? `, followers AS (${FOLLOWERS})` : ''}
     UPDATE ${collection} SET name = $2, kind = $3, doc = $4, head = $10, picture = coalesce($5, picture), revision = $7, updated_at = now(),
       pictured = CASE WHEN $5::bytea IS NULL THEN 0 ELSE $7 END WHERE id = $1`, values(doc, save),
  );
}

/** Pictures of brushes that name this alpha are to be drawn anew. */
const FOLLOWERS = `UPDATE brushes SET pictured = 0 FROM refs
  WHERE refs.kind = 'alpha' AND refs.target = $1::text AND refs.collection = 'brushes' AND refs.id = brushes.id AND refs.revision = brushes.revision AND brushes.pictured <> 0`;

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
  noteChange(db, collection);
}

export async function restoreDocument(db: Database, collection: Collection, id: string): Promise<void> {
  await db.transaction(async (tx) => {
    const { rows } = await tx.query<{ name: string }>(`SELECT name FROM ${collection} WHERE id = $1 AND deleted_at IS NOT NULL`, [id]);
    if (!rows[0]) throw missing(collection, id);
    await refuseTakenName(tx, collection, rows[0].name, id);
    await tx.query(`UPDATE ${collection} SET deleted_at = NULL WHERE id = $1`, [id]);
  });
  noteChange(db, collection);
}

export interface KeptPicture {
  picture: Uint8Array | null;
  /** Whether it shows the document as it is now. */
  current: boolean;
  revision: number;
}

export async function getPicture(db: Database, collection: Collection, id: string): Promise<KeptPicture> {
  const { rows } = await db.query<{ picture: Uint8Array | null; pictured: number; revision: number }>(`SELECT picture, pictured, revision FROM ${collection} WHERE id = $1`, [id]);
  const row = rows[0];
  if (!row) throw missing(collection, id);
  return { picture: row.picture, current: row.picture !== null && row.pictured === row.revision, revision: row.revision };
}

export interface Drawn {
  collection: Collection;
  id: string;
  revision: number;
  picture: Uint8Array;
  /** The alphas it shows, as they were. */
  of: readonly { id: string; revision: number }[];
}

/** Keeps a picture; false when the document, or an alpha in it, was saved again since. */
export async function putPicture(db: Database, { collection, id, revision, picture, of }: Drawn): Promise<boolean> {
  const { rows } = await db.query(
    `UPDATE ${collection} SET picture = $3, pictured = $2 WHERE id = $1 AND revision = $2 AND NOT EXISTS (
       SELECT 1 FROM unnest($4::uuid[], $5::int[]) AS shown (id, revision) JOIN alphas a ON a.id = shown.id WHERE a.revision <> shown.revision)
     RETURNING id`, [id, revision, picture, of.map((a) => a.id), of.map((a) => a.revision)],
  );
  return rows.length > 0;
}

/** Documents whose pictures are to be drawn, those that were saved last first. */
export async function unpictured(db: Database, collection: Collection, most: number): Promise<string[]> {
  const { rows } = await db.query<{ id: string }>(`SELECT id FROM ${collection} WHERE deleted_at IS NULL AND pictured <> revision ORDER BY updated_at DESC LIMIT $1`, [most]);
  return rows.map((r) => r.id);
}

async function refuseTakenName(tx: Queries, collection: Collection, name: string, id: string): Promise<void> {
  const { rows } = await tx.query(`SELECT 1 FROM ${collection} WHERE lower(name) = lower($1) AND id <> $2 AND deleted_at IS NULL`, [name, id]);
  if (rows.length > 0) throw nameTaken(collection, name);
}

function nameTaken(collection: Collection, name: string): Problem {
  return new Problem(409, 'name-taken', `There is already a ${SINGULAR[collection]} called “${name}”. Choose another name.`, { name });
}

function baseColumn(collection: Collection): string {
  return collection === 'brushes' ? 'base' : 'false AS base';
}

function missing(collection: Collection, id: string): Problem {
  return new Problem(404, 'not-found', `This ${SINGULAR[collection]} isn’t here; it may have been deleted.`, { id });
}
