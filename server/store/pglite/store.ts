/** The port over the embedded database. */
import { COLLECTIONS, type Collection } from '#core/stored';
import type { BlobFiles } from '../blobFiles';
import type { Change, Store, StoreVerbs } from '../port';
import { putBack, snapshot } from './backup';
import { bases, getBelt, putBelt } from './belt';
import { ListedBlobs } from './blobs';
import {
  deleteDocument,
  getDocument,
  getHead,
  getPicture,
  getRevision,
  getStored,
  listAsText,
  listDocuments,
  putPicture,
  restoreDocument,
  nameRevision,
  revisionsOf,
  trash,
  unpictured,
} from './documents';
import { putHolds } from './holds';
import { blobsNamedBy, usersOf } from './references';
import { saveDocument } from './save';
import type { Database, Queries, Transacted } from './thread';
import { cleanUp, sizesOf } from './upkeep';

export interface PgliteInside {
  db: Database;
  files: BlobFiles;
  /** Folder of the PostgreSQL data. */
  databaseFolder: string;
  /** Whether this start made it. */
  first: boolean;
  /** Lets go of the data folder. */
  unlock: () => Promise<void>;
}

/** What it is made of is for the tests of this store alone. */
export interface PgliteStore extends Store {
  readonly inside: PgliteInside;
}

export function pgliteStore(inside: PgliteInside): PgliteStore {
  const { db, files } = inside;
  // Another start begins to count anew.
  const started = Date.now().toString(36);
  const counts = new Map<Collection, number>(COLLECTIONS.map((collection) => [collection, 0]));
  const listeners = new Set<(change: Change) => void>();

  function tell(change: Change): void {
    counts.set(change.collection, counts.get(change.collection)! + 1);
    for (const heard of [...listeners]) heard(change);
  }

  return {
    ...verbsOver(db, tell),
    inside,
    first: inside.first,
    blobs: new ListedBlobs(db, files),
    async transaction(act) {
      const changes: Change[] = [];
      const value = await db.transaction((tx) => act(verbsOver(joined(tx), (change) => void changes.push(change))));
      changes.forEach(tell);
      return value;
    },
    onChange(heard) {
      listeners.add(heard);
      return () => listeners.delete(heard);
    },
    stateOf: (collection) => `${started}-${counts.get(collection)}`,
    snapshot: (to) => snapshot(db, to),
    async putBack(what) {
      const changes = await db.transaction((tx) => putBack(tx, what));
      changes.forEach(tell);
      return changes;
    },
    clean: () => cleanUp(db, files),
    sizes: () => sizesOf(db, inside.databaseFolder),
    async close() {
      await db.close();
      await inside.unlock();
    },
  };
}

/** A verb that is a transaction of its own is part of the one that is running. */
const joined = (tx: Queries): Transacted => ({
  query: (sql, params, bytes) => tx.query(sql, params, bytes),
  exec: (sql) => tx.exec(sql),
  transaction: (act) => act(tx),
});

function verbsOver(db: Transacted, tell: (change: Change) => void): StoreVerbs {
  return {
    list: (collection, page) => listDocuments(db, collection, page),
    listAsText: (collection, page) => listAsText(db, collection, page),
    stored: (collection, id) => getStored(db, collection, id),
    document: (collection, id) => getDocument(db, collection, id),
    head: (collection, id) => getHead(db, collection, id),
    async save(doc, save) {
      const { collection, id } = doc;
      const revision = await saveDocument(db, doc, save);
      tell({ collection, id, revision });
      return revision;
    },
    async remove(collection, id) {
      await deleteDocument(db, collection, id);
      tell({ collection, id, revision: null });
    },
    async restore(collection, id) {
      tell({ collection, id, revision: await restoreDocument(db, collection, id) });
    },
    revisions: (collection, id) => revisionsOf(db, collection, id),
    revision: (collection, id, revision) => getRevision(db, collection, id, revision),
    nameRevision: (collection, id, revision, name) => nameRevision(db, collection, id, revision, name),
    trash: () => trash(db),
    usersOf: (collection, id) => usersOf(db, collection, id),
    blobsNamedBy: (collection, id) => blobsNamedBy(db, collection, id),
    picture: (collection, id) => getPicture(db, collection, id),
    putPicture: (drawn) => putPicture(db, drawn),
    unpictured: (collection, most) => unpictured(db, collection, most),
    bases: () => bases(db),
    belt: () => getBelt(db),
    putBelt: (ids) => putBelt(db, ids),
    putHolds: (holder, hashes) => putHolds(db, holder, hashes),
  };
}
