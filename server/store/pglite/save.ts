/**
 * Saving a document. One statement looks whether it can be saved and writes all of it, or nothing; what it replaces is
 * kept.
 */
import { COLLECTIONS, SINGULAR, type Collection } from '#core/stored';
import { Problem } from '../../problem';
import type { Judged } from '../../reading/judged';
import type { Save } from '../port';
import { baseColumn, nameTaken } from './documents';
import type { Utf8 } from './messages';
import { columnsOf, needReferences } from './references';
import type { Queries } from './thread';

/** Returns the new revision. What the document names must be there. */
export async function saveDocument(db: Queries, doc: Judged, save: Save): Promise<number> {
  const { collection, id, name, references } = doc;
  for (let from = doc; ; from = { ...doc, text: doc.text }) {
    const found = await tryToSave(db, from, save);
    if (found.saved) break;
    if (found.lacks) {
      await needReferences(db, SINGULAR[collection], references);
      // What it lacked came meanwhile.
      delete doc.spare;
      continue;
    }
    if (found.base)
      throw new Problem(403, 'base-brush', `“${name}” is a base brush and stays as it is. Save it as a copy.`);
    if (found.deleted || (found.revision === null && save.revision !== null)) {
      throw new Problem(
        409,
        'deleted-elsewhere',
        `“${name}” was deleted in another window since it was opened here. Keep yours as a copy.`,
        { id },
      );
    }
    if (found.revision !== save.revision) {
      throw new Problem(
        409,
        'changed-elsewhere',
        `“${name}” was changed in another window since it was opened here. Keep yours as a copy, or load the other.`,
        { id, stored: found.revision },
      );
    }
    throw nameTaken(collection, name);
  }
  return (save.revision ?? 0) + 1;
}

/** What the statement found, as it was before. */
interface Found {
  saved: boolean;
  /** Of the one that is there; null where there is none. */
  revision: number | null;
  deleted: boolean;
  base: boolean;
  /** Something that the document names isn't there, or has another size. */
  lacks: boolean;
}

async function tryToSave(db: Queries, doc: Judged, save: Save): Promise<Found> {
  const { rows } = await db.query<Found>(
    `SELECT saved, revision, deleted, was_base AS base, lacks FROM save_${doc.collection} ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    values(doc, save),
  );
  return rows[0];
}

function values(
  { collection, id, name, kind, text, spare, head, references }: Judged,
  { revision, picture, base }: Save,
): unknown[] {
  return [
    id,
    name,
    kind,
    spare ? ({ utf8: spare } satisfies Utf8) : Buffer.from(text).toString('utf8'),
    picture ?? null,
    collection,
    revision,
    head,
    base ?? false,
    ...columnsOf(references),
  ];
}

/**
 * Kept as functions of the database, for it plans a function once and a statement each time: to plan takes longer than
 * to save.
 */
export async function prepareSaves(db: Queries): Promise<void> {
  for (const collection of COLLECTIONS) {
    await db.exec(`CREATE OR REPLACE FUNCTION save_${collection} (${PARAMETERS}) RETURNS TABLE (${FOUND}) LANGUAGE plpgsql AS $save$
      #variable_conflict use_column
      BEGIN
        RETURN QUERY ${statement(collection)};
      END $save$`);
  }
}

const PARAMETERS =
  'id uuid, name text, kind text, doc jsonb, picture bytea, collection text, made_on int, head jsonb, base boolean, kinds text[], targets text[], bytes bigint[], needed boolean[]';
const FOUND = 'saved boolean, revision int, deleted boolean, was_base boolean, lacks boolean';

/** The parameters by their places: names of columns come before theirs. */
function statement(collection: Collection): string {
  const own = collection === 'brushes';
  return `
    WITH old AS (SELECT revision, deleted_at IS NOT NULL AS deleted, ${baseColumn(collection)} FROM ${collection} WHERE id = $1),
    named AS (SELECT kind, target, bytes, needed FROM unnest($10, $11, $12, $13) AS n (kind, target, bytes, needed)),
    lacking AS (
      SELECT 1 FROM named n LEFT JOIN blobs b ON b.hash = n.target WHERE n.kind = 'blob' AND (b.hash IS NULL OR b.bytes <> n.bytes)
      UNION ALL
      SELECT 1 FROM named n LEFT JOIN alphas a ON a.id = CASE WHEN n.kind = 'alphas' THEN n.target::uuid END AND a.deleted_at IS NULL
        WHERE n.kind = 'alphas' AND n.needed AND a.id IS NULL
    ),
    good AS (
      SELECT 1 WHERE NOT EXISTS (SELECT FROM lacking)
        AND NOT EXISTS (SELECT FROM ${collection} WHERE lower(name) = lower($2) AND id <> $1 AND deleted_at IS NULL)
        AND CASE WHEN $7 IS NULL THEN NOT EXISTS (SELECT FROM old) ELSE EXISTS (SELECT FROM old WHERE NOT deleted AND NOT base AND revision = $7) END
    ),
    kept AS (
      INSERT INTO revisions (collection, id, revision, doc) SELECT $6, id, revision, doc FROM ${collection}, good WHERE id = $1
    ),
    noted AS (
      INSERT INTO refs (collection, id, revision, kind, target, needed) SELECT $6, $1, coalesce($7, 0) + 1, kind, target, needed FROM named, good ON CONFLICT DO NOTHING
    ),
    ${collection === 'alphas' ? `followers AS (${FOLLOWERS}),` : ''}
    changed AS (
      UPDATE ${collection} SET name = $2, kind = $3, doc = $4, head = $8, picture = coalesce($5, picture), revision = revision + 1, updated_at = now(),
        pictured = CASE WHEN $5::bytea IS NULL THEN 0 ELSE revision + 1 END FROM good WHERE id = $1
    ),
    made AS (
      INSERT INTO ${collection} (id, name, kind, doc, head, picture, pictured${own ? ', base' : ''})
        SELECT $1, $2, $3, $4, $8, $5, CASE WHEN $5::bytea IS NULL THEN 0 ELSE 1 END${own ? ', $9' : ''} FROM good WHERE $7 IS NULL
    )
    SELECT EXISTS (SELECT FROM good) AS saved, (SELECT revision FROM old) AS revision, coalesce((SELECT deleted FROM old), false) AS deleted,
      coalesce((SELECT base FROM old), false) AS base, EXISTS (SELECT FROM lacking) AS lacks`;
}

/** Pictures of brushes that name this alpha are to be drawn anew. */
const FOLLOWERS = `
  UPDATE brushes SET pictured = 0 FROM refs, good
  WHERE refs.kind = 'alphas' AND refs.target = $1::text AND refs.collection = 'brushes' AND refs.id = brushes.id AND refs.revision = brushes.revision AND brushes.pictured <> 0`;
