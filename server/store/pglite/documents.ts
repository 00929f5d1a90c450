/** The kept documents: lists of them, one of them, taken away and brought back, and their pictures. */
import {
  COLLECTIONS,
  headOf,
  readStored,
  SINGULAR,
  type Collection,
  type Documents,
  type Heads,
  type StoredDocument,
} from '#core/stored';
import type { ReadResult } from '#core/settings';
import { Problem } from '../../problem';
import { read } from '../../reading/read';
import type { Drawn, StoredPicture, List, ListText, Page, Past, Stored, Trashed, User } from '../port';
import { usersOf } from './references';
import type { Queries, Transacted } from './thread';

interface Row {
  id: string;
  name: string;
  doc: unknown;
  revision: number;
  base: boolean;
  updated_at: Date;
}

interface HeadRow extends Row {
  /** As the list has it, as JSON; null where the row was not written by a save. */
  listed: string | null;
  /** The place in the list. */
  at: string;
}

/** A page of a list, oldest first. `next` is where the following one begins, null after the last. */
export async function listDocuments<C extends Collection>(db: Queries, collection: C, page: Page): Promise<List<C>> {
  const { items, ...rest } = await listAsText(db, collection, page);
  return { items: JSON.parse(items) as List<C>['items'], ...rest };
}

/** The same, its entries as JSON that was put together by the database. */
export async function listAsText(db: Queries, collection: Collection, { after, limit }: Page): Promise<ListText> {
  const from = after === null ? null : placeOf(after);
  const { rows } = await db.query<HeadRow>(
    `SELECT id, name, (head || jsonb_build_object('revision', revision, 'base', ${baseOf(collection)}, 'updatedAt', to_char(updated_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')))::text AS listed,
       CASE WHEN head IS NULL THEN doc END AS doc, revision, ${baseColumn(collection)}, updated_at, extract(epoch FROM created_at)::text AS at FROM ${collection}
     WHERE deleted_at IS NULL ${from ? 'AND (created_at, id) > (to_timestamp($2::numeric), $3::uuid)' : ''} ORDER BY created_at, id LIMIT $1`,
    from ? [limit + 1, from.at, from.id] : [limit + 1],
  );
  const last = rows[limit - 1];
  const items: string[] = [];
  const skipped: ListText['skipped'] = [];
  for (const row of rows.slice(0, limit)) {
    if (row.listed !== null) {
      items.push(row.listed);
      continue;
    }
    const head = headOfStored(collection, row.doc);
    const { revision, base, updated_at: at } = row;
    if (head.ok) items.push(JSON.stringify({ ...head.value, revision, base, updatedAt: at.toISOString() }));
    else skipped.push({ id: row.id, name: row.name, reason: head.reason });
  }
  return { items: `[${items.join()}]`, skipped, next: rows.length > limit && last ? `${last.at} ${last.id}` : null };
}

/** Of a row that has no head: it was not written by a save. */
function headOfStored<C extends Collection>(collection: C, doc: unknown): ReadResult<Heads[C]> {
  const read = readStored(collection, doc);
  return read.ok ? { ok: true, value: headOf(collection, read.value) } : read;
}

function placeOf(after: string): { at: string; id: string } {
  const found = /^(\d+(?:\.\d+)?) ([0-9a-f-]{36})$/.exec(after);
  if (!found) throw new Problem(422, 'invalid', 'A list goes on from the place that the page before it named.');
  return { at: found[1], id: found[2] };
}

export async function getStored(db: Queries, collection: Collection, id: string): Promise<Stored> {
  const { rows } = await db.query<Omit<Stored, 'updatedAt'> & { updated_at: Date }>(
    `SELECT name, doc::text AS text, revision, ${baseColumn(collection)}, updated_at FROM ${collection} WHERE id = $1 AND deleted_at IS NULL`,
    [id],
    'text',
  );
  const [row] = rows;
  if (!row) throw missing(collection, id);
  const { updated_at: at, ...stored } = row;
  return { ...stored, updatedAt: at.toISOString() };
}

/** A small document, read at once. */
export async function getDocument<C extends Collection>(
  db: Queries,
  collection: C,
  id: string,
): Promise<StoredDocument<C>> {
  const { name, text, ...about } = await getStored(db, collection, id);
  return {
    doc: JSON.parse(Buffer.from(read<'stored'>({ kind: 'stored', collection, name }, text)).toString()) as Documents[C],
    ...about,
  };
}

/** What lists say of one document. */
export async function getHead<C extends Collection>(
  db: Queries,
  collection: C,
  id: string,
): Promise<{ head: Heads[C]; revision: number }> {
  const { rows } = await db.query<{ head: Heads[C] | null; revision: number }>(
    `SELECT head, revision FROM ${collection} WHERE id = $1 AND deleted_at IS NULL`,
    [id],
  );
  const [row] = rows;
  if (!row) throw missing(collection, id);
  return { head: row.head ?? headOf(collection, (await getDocument(db, collection, id)).doc), revision: row.revision };
}

/** Deleting only hides, so that it can be taken back. What others can’t do without stays. */
export async function deleteDocument(db: Transacted, collection: Collection, id: string): Promise<void> {
  await db.transaction(async (tx) => {
    const { rows } = await tx.query<{ name: string; base: boolean }>(
      `SELECT name, ${baseColumn(collection)} FROM ${collection} WHERE id = $1 AND deleted_at IS NULL`,
      [id],
    );
    if (!rows[0]) throw missing(collection, id);
    if (rows[0].base) throw new Problem(403, 'base-brush', `“${rows[0].name}” is a base brush and can’t be deleted.`);
    const users = (await usersOf(tx, collection, id)).filter((user) => user.needed);
    if (users.length > 0) throw inUse(rows[0].name, users);
    await tx.query(`UPDATE ${collection} SET deleted_at = now() WHERE id = $1`, [id]);
    if (collection === 'brushes') await tx.query('DELETE FROM belt WHERE brush_id = $1', [id]);
  });
}

/** So many of those that would break are called by their names. */
const MOST_NAMED = 3;

function inUse(name: string, users: readonly User[]): Problem {
  const named = users.slice(0, MOST_NAMED).map((user) => `“${user.name}”`);
  const more = users.length - named.length;
  const all = more > 0 ? `${named.join(', ')} and ${more} more` : named.join(' and ');
  return new Problem(
    409,
    'in-use',
    `“${name}” is used by ${all}. Give ${users.length === 1 ? 'it' : 'those'} another alpha first.`,
    { users: users.slice(0, 100) },
  );
}

/** Answers its revision. */
export async function restoreDocument(db: Transacted, collection: Collection, id: string): Promise<number> {
  return db.transaction(async (tx) => {
    const { rows } = await tx.query<{ name: string; revision: number }>(
      `SELECT name, revision FROM ${collection} WHERE id = $1 AND deleted_at IS NOT NULL`,
      [id],
    );
    if (!rows[0]) throw missing(collection, id);
    await refuseTakenName(tx, collection, rows[0].name, id);
    await tx.query(`UPDATE ${collection} SET deleted_at = NULL WHERE id = $1`, [id]);
    return rows[0].revision;
  });
}

/** What it was before, the last first. */
export async function revisionsOf(db: Queries, collection: Collection, id: string): Promise<Past[]> {
  const { rows } = await db.query<{ revision: number; saved_at: Date; name: string }>(
    'SELECT revision, saved_at, name FROM revisions WHERE collection = $1 AND id = $2 ORDER BY revision DESC',
    [collection, id],
  );
  return rows.map((row) => ({ revision: row.revision, savedAt: row.saved_at.toISOString(), name: row.name }));
}

export async function nameRevision(
  db: Queries,
  collection: Collection,
  id: string,
  revision: number,
  name: string,
): Promise<void> {
  const { rows } = await db.query(
    'UPDATE revisions SET name = $4 WHERE collection = $1 AND id = $2 AND revision = $3 RETURNING id',
    [collection, id, revision, name],
  );
  if (rows.length === 0) throw noRevision(collection, id, revision);
}

/** More are there only where a program deletes. */
const MOST_TRASHED = 1000;

/** What was deleted and can be taken back, the last first. */
export async function trash(db: Queries): Promise<Trashed[]> {
  const deleted = COLLECTIONS.map(
    (c) => `SELECT '${c}' AS collection, id, name, revision, deleted_at FROM ${c} WHERE deleted_at IS NOT NULL`,
  ).join(' UNION ALL ');
  const { rows } = await db.query<Omit<Trashed, 'deletedAt'> & { deleted_at: Date }>(
    `SELECT * FROM (${deleted}) d ORDER BY deleted_at DESC, id LIMIT ${MOST_TRASHED}`,
  );
  return rows.map(({ deleted_at: at, ...row }) => ({ ...row, deletedAt: at.toISOString() }));
}

export async function getRevision(
  db: Queries,
  collection: Collection,
  id: string,
  revision: number,
): Promise<Uint8Array> {
  const { rows } = await db.query<{ text: Uint8Array }>(
    'SELECT doc::text AS text FROM revisions WHERE collection = $1 AND id = $2 AND revision = $3',
    [collection, id, revision],
    'text',
  );
  if (rows[0]) return rows[0].text;
  throw noRevision(collection, id, revision);
}

function noRevision(collection: Collection, id: string, revision: number): Problem {
  return new Problem(404, 'no-revision', `Revision ${revision} of this ${SINGULAR[collection]} isn’t kept.`, { id });
}

export async function getPicture(db: Queries, collection: Collection, id: string): Promise<StoredPicture> {
  const { rows } = await db.query<{ picture: Uint8Array | null; pictured: number; revision: number }>(
    `SELECT picture, pictured, revision FROM ${collection} WHERE id = $1`,
    [id],
  );
  const row = rows[0];
  if (!row) throw missing(collection, id);
  return {
    picture: row.picture,
    current: row.picture !== null && row.pictured === row.revision,
    revision: row.revision,
  };
}

/** Keeps a picture; false when the document, or an alpha in it, was saved again since. */
export async function putPicture(db: Queries, { collection, id, revision, picture, of }: Drawn): Promise<boolean> {
  const { rows } = await db.query(
    `UPDATE ${collection} SET picture = $3, pictured = $2 WHERE id = $1 AND revision = $2 AND NOT EXISTS (
       SELECT 1 FROM unnest($4::uuid[], $5::int[]) AS shown (id, revision) JOIN alphas a ON a.id = shown.id WHERE a.revision <> shown.revision)
     RETURNING id`,
    [id, revision, picture, of.map((a) => a.id), of.map((a) => a.revision)],
  );
  return rows.length > 0;
}

/** Documents whose pictures are to be drawn, those that were saved last first. */
export async function unpictured(db: Queries, collection: Collection, most: number): Promise<string[]> {
  const { rows } = await db.query<{ id: string }>(
    `SELECT id FROM ${collection} WHERE deleted_at IS NULL AND pictured <> revision ORDER BY updated_at DESC LIMIT $1`,
    [most],
  );
  return rows.map((r) => r.id);
}

async function refuseTakenName(tx: Queries, collection: Collection, name: string, id: string): Promise<void> {
  const { rows } = await tx.query(
    `SELECT 1 FROM ${collection} WHERE lower(name) = lower($1) AND id <> $2 AND deleted_at IS NULL`,
    [name, id],
  );
  if (rows.length > 0) throw nameTaken(collection, name);
}

export function nameTaken(collection: Collection, name: string): Problem {
  return new Problem(
    409,
    'name-taken',
    `There is already ${/^[aeiou]/.test(SINGULAR[collection]) ? 'an' : 'a'} ${SINGULAR[collection]} called “${name}”. Choose another name.`,
    { name },
  );
}

export function baseColumn(collection: Collection): string {
  return `${baseOf(collection)} AS base`;
}

function baseOf(collection: Collection): string {
  return collection === 'brushes' ? 'base' : 'false';
}

function missing(collection: Collection, id: string): Problem {
  return new Problem(404, 'not-found', `This ${SINGULAR[collection]} isn’t here; it may have been deleted.`, { id });
}
