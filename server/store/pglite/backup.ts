/** Everything that is kept, out of the store row by row and back into it. */
import { COLLECTIONS } from '#core/stored';
import type { StoredRow, StoredRevision, PutBack, Snapshot, Standing } from '../port';
import { baseColumn } from './documents';
import { getBelt, putBelt } from './belt';
import { putReferences } from './references';
import type { Queries, Transacted } from './thread';

/** Rows that are read in one go: some documents are large. */
const ROWS = 20;

/** All as it stands at one moment; whoever saves meanwhile waits. */
export async function snapshot(db: Transacted, to: Snapshot): Promise<void> {
  const data = await db.transaction(async (tx) => {
    for (const collection of COLLECTIONS) {
      const ids = await idsOf(tx, `SELECT id FROM ${collection} ORDER BY created_at, id`);
      for (const some of pagesOf(ids)) {
        const { rows } = await tx.query<{ id: string; line: string }>(
          `SELECT id, json_build_object('collection', '${collection}', 'id', id, 'revision', revision, 'base', base, 'createdAt', ${iso('created_at')},
             'updatedAt', ${iso('updated_at')}, 'deletedAt', ${iso('deleted_at')}, 'doc', doc)::text AS line
           FROM (SELECT *${collection === 'brushes' ? '' : `, ${baseColumn(collection)}`} FROM ${collection} WHERE id = ANY($1::uuid[])) d`,
          [some],
        );
        await to.documents(inOrder(some, rows));
      }
    }
    const past = await tx.query<{ at: string }>(
      'SELECT ctid::text AS at FROM revisions ORDER BY collection, id, revision',
    );
    for (const some of pagesOf(past.rows.map((row) => row.at))) {
      const { rows } = await tx.query<{ id: string; line: string }>(
        `SELECT ctid::text AS id, json_build_object('collection', collection, 'id', id, 'revision', revision, 'savedAt', ${iso('saved_at')}, 'name', name, 'doc', doc)::text AS line
         FROM revisions WHERE ctid = ANY($1::tid[])`,
        [some],
      );
      await to.revisions(inOrder(some, rows));
    }
    // What is to be copied stays until it is.
    const { rows } = await tx.query<{ blob: string; bytes: number }>(
      'UPDATE blobs SET sent_at = now() RETURNING hash AS blob, bytes::float8 AS bytes',
    );
    await to.belt(await getBelt(tx));
    return rows;
  });
  await to.data(data.sort((a, b) => a.blob.localeCompare(b.blob)));
}

const iso = (column: string): string => `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

async function idsOf(tx: Queries, sql: string, params: unknown[] = []): Promise<string[]> {
  return (await tx.query<{ id: string }>(sql, params)).rows.map((row) => row.id);
}

function* pagesOf<T>(all: readonly T[]): Iterable<T[]> {
  for (let at = 0; at < all.length; at += ROWS) yield all.slice(at, at + ROWS);
}

function inOrder(ids: readonly string[], rows: readonly { id: string; line: string }[]): string[] {
  const lines = new Map(rows.map((row) => [row.id, row.line]));
  return ids.flatMap((id) => lines.get(id) ?? []);
}

/**
 * Puts rows back within a transaction. What is here and differs becomes an earlier revision; what is the same stays;
 * what isn’t here comes with its revisions. Names that others have taken since get a number.
 */
export async function putBack(tx: Queries, { rows, belt, others }: PutBack): Promise<Standing[]> {
  const changed: Standing[] = [];
  const here = await everyStanding(tx);
  const alive = new Map(COLLECTIONS.map((collection) => [collection, [] as string[]]));
  for await (const row of rows())
    if ('document' in row && row.document.deletedAt === null) alive.get(row.document.collection)!.push(row.document.id);

  for (const collection of COLLECTIONS) {
    const ids = alive.get(collection)!;
    if (others === 'trash') {
      const gone = await idsOf(
        tx,
        `UPDATE ${collection} SET deleted_at = now() WHERE deleted_at IS NULL AND NOT id = ANY($1::uuid[])${collection === 'brushes' ? ' AND NOT base' : ''} RETURNING id`,
        [ids],
      );
      changed.push(...gone.map((id) => ({ collection, id, revision: null })));
    }
    // Two may have changed their names with each other: for a moment nobody has one.
    await tx.query(
      `UPDATE ${collection} SET name = id::text WHERE id = ANY($1::uuid[])${collection === 'brushes' ? ' AND NOT base' : ''}`,
      [ids],
    );
  }
  for await (const row of rows()) {
    if ('past' in row) {
      if (!here.has(keyOf(row.past))) await putRevision(tx, row.past);
      continue;
    }
    const standing = here.get(keyOf(row.document));
    if (standing?.base || (!standing && row.document.base)) continue;
    const revision = await putDocument(tx, row.document, standing ?? null);
    if (revision !== null) changed.push({ collection: row.document.collection, id: row.document.id, revision });
  }
  // Brushes show the alphas they name.
  if (changed.some(({ collection }) => collection === 'alphas')) await tx.query('UPDATE brushes SET pictured = 0');
  if (others === 'trash') await putBelt({ query: tx.query, exec: tx.exec, transaction: (act) => act(tx) }, belt);
  return changed;
}

const keyOf = ({ collection, id }: { collection: string; id: string }): string => `${collection} ${id}`;

interface Row {
  id: string;
  revision: number;
  base: boolean;
  deleted: boolean;
}

async function everyStanding(tx: Queries): Promise<Map<string, Row>> {
  const out = new Map<string, Row>();
  for (const collection of COLLECTIONS) {
    const { rows } = await tx.query<Row>(
      `SELECT id, revision, ${baseColumn(collection)}, deleted_at IS NOT NULL AS deleted FROM ${collection}`,
    );
    for (const row of rows) out.set(keyOf({ collection, id: row.id }), row);
  }
  return out;
}

/** Answers the revision it now has; null where nothing changed. */
async function putDocument(tx: Queries, given: StoredRow, standing: Row | null): Promise<number | null> {
  const { collection, id } = given;
  if (given.deletedAt !== null) {
    // What is here and was in the trash then stays as it is.
    if (standing) return null;
    await insert(tx, given);
    return null;
  }
  const row = await underFreeName(tx, given);
  if (!standing) {
    await insert(tx, row);
    return row.revision;
  }
  const { rows } = await tx.query<{ same: boolean }>(
    `SELECT doc = $2::jsonb AS same FROM ${collection} WHERE id = $1`,
    [id, row.text],
  );
  if (rows[0].same) {
    await tx.query(`UPDATE ${collection} SET name = $2, deleted_at = NULL WHERE id = $1`, [id, row.name]);
    return standing.deleted ? standing.revision : null;
  }
  const revision = standing.revision + 1;
  await tx.query(
    `INSERT INTO revisions (collection, id, revision, doc) SELECT $2, id, revision, doc FROM ${collection} WHERE id = $1`,
    [id, collection],
  );
  await tx.query(
    `UPDATE ${collection} SET name = $2, kind = $3, doc = $4, head = $5, revision = $6, pictured = 0, updated_at = now(), deleted_at = NULL WHERE id = $1`,
    [id, row.name, row.kind, row.text, row.head, revision],
  );
  await putReferences(tx, { collection, id, revision }, row.references);
  return revision;
}

async function insert(tx: Queries, row: StoredRow): Promise<void> {
  const { collection, id, revision } = row;
  await tx.query(
    `INSERT INTO ${collection} (id, name, kind, doc, head, revision, pictured, created_at, updated_at, deleted_at)
     VALUES ($1, $2, $3, $4, $5, $6, 0, $7, $8, CASE WHEN $9 THEN now() END)`,
    [id, row.name, row.kind, row.text, row.head, revision, row.createdAt, row.updatedAt, row.deletedAt !== null],
  );
  await putReferences(tx, { collection, id, revision }, row.references);
}

async function putRevision(tx: Queries, { collection, id, revision, ...past }: StoredRevision): Promise<void> {
  await tx.query(
    'INSERT INTO revisions (collection, id, revision, doc, saved_at, name) VALUES ($1, $2, $3, $4, $5, $6) ON CONFLICT DO NOTHING',
    [collection, id, revision, past.text, past.savedAt, past.name],
  );
  await putReferences(tx, { collection, id, revision }, past.references);
}

/** The same where its name is free, otherwise with a number. */
async function underFreeName(tx: Queries, row: StoredRow): Promise<StoredRow> {
  const taken = async (name: string): Promise<boolean> =>
    (
      await tx.query(
        `SELECT 1 FROM ${row.collection} WHERE lower(name) = lower($1) AND id <> $2 AND deleted_at IS NULL`,
        [name, row.id],
      )
    ).rows.length > 0;
  if (!(await taken(row.name))) return row;
  let name = row.name;
  for (let n = 2; await taken(name); n++) name = `${row.name.slice(0, 74)} ${n}`;
  const named = (text: string): string => {
    const value = JSON.parse(text) as { card: object };
    return JSON.stringify({ ...value, card: { ...value.card, name } });
  };
  return { ...row, name, text: named(row.text), head: named(row.head) };
}
