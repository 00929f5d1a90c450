/**
 * What keeps the product's things, as the rest of the server sees it: documents and their revisions, stored bytes, what
 * is at hand, and word of every change. The embedded database stands behind it (`pglite/`); another store has to pass
 * the same tests (`storeTests.ts`). Each verb does all of it or nothing; what can't be done throws a Problem.
 */
import type { Readable } from 'node:stream';
import type { Collection, Heads, StoredDocument, Listed } from '#core/stored';
import type { References } from '#core/settings';
import type { Judged } from '../reading/judged';

export interface Store extends StoreVerbs {
  readonly blobs: Blobs;
  /** Whether this start made the store. */
  readonly first: boolean;
  /** Several verbs, all of them or none. Inside, ask `verbs` alone: everybody else waits until `act` has ended. */
  transaction<T>(act: (verbs: StoreVerbs) => Promise<T>): Promise<T>;
  /** Calls for every change of a document once it is written for good; answers what ends it. */
  onChange(heard: (change: Change) => void): () => void;
  /** Names the state that a collection is in; the same text, the same list. */
  stateOf(collection: Collection): string;
  /** Hands out everything that is kept, as it stands at one moment. */
  snapshot(to: Snapshot): Promise<void>;
  /** Puts back what was handed out, all of it or nothing. Answers what changed. */
  putBack(what: PutBack): Promise<Standing[]>;
  /** Thins revisions, empties the trash, lets go of bytes that nothing names. Safe at any time. */
  clean(): Promise<Cleaned>;
  sizes(): Promise<Sizes>;
  close(): Promise<void>;
}

/** What can be done to documents, to the belt and to what drafts hold, alone or several together. */
export interface StoreVerbs {
  /** A page of a list, oldest first. */
  list<C extends Collection>(collection: C, page: Page): Promise<List<C>>;
  /** The same, with its entries as JSON: whoever only hands them on reads none of them. */
  listAsText(collection: Collection, page: Page): Promise<ListText>;
  stored(collection: Collection, id: string): Promise<Stored>;
  /** A small document, read at once. */
  document<C extends Collection>(collection: C, id: string): Promise<StoredDocument<C>>;
  /** What lists say of one document. */
  head<C extends Collection>(collection: C, id: string): Promise<{ head: Heads[C]; revision: number }>;
  /** Looks whether it can be saved and writes it, at once; answers the new revision. What it names must be there. */
  save(doc: Judged, save: Save): Promise<number>;
  /** Deleting only hides, so that it can be taken back. What others can't do without stays. */
  remove(collection: Collection, id: string): Promise<void>;
  restore(collection: Collection, id: string): Promise<void>;
  /** What it was before, the last first. */
  revisions(collection: Collection, id: string): Promise<Past[]>;
  /** One of them, as JSON of whatever version. */
  revision(collection: Collection, id: string, revision: number): Promise<Uint8Array>;
  /** Gives one of them a name, or none; one that has a name stays for good. */
  nameRevision(collection: Collection, id: string, revision: number, name: string): Promise<void>;
  /** What was deleted and can be taken back, the last first. */
  trash(): Promise<Trashed[]>;
  /** Who names a document, as they are now. */
  usersOf(collection: Collection, id: string): Promise<User[]>;
  /** Blobs that a document names, or named in a revision that is kept. */
  blobsNamedBy(collection: Collection, id: string): Promise<string[]>;
  picture(collection: Collection, id: string): Promise<StoredPicture>;
  /** Keeps a picture; false when the document, or an alpha in it, was saved again since. */
  putPicture(drawn: Drawn): Promise<boolean>;
  /** Documents whose pictures are to be drawn, those that were saved last first. */
  unpictured(collection: Collection, most: number): Promise<string[]>;
  /** Base brushes that are there. */
  bases(): Promise<string[]>;
  /** The brushes at hand, in their order. */
  belt(): Promise<string[]>;
  /** Ids that are no brush are left out. */
  putBelt(ids: readonly string[]): Promise<string[]>;
  /** From now on the browser's drafts name these blobs and no others. Answers those that aren't here. */
  putHolds(holder: string, hashes: readonly string[]): Promise<string[]>;
}

/** Stored bytes, named by their SHA-256 as hex. */
export interface Blobs {
  /** Where they lie as files: the studio's processes read them there. */
  readonly folder: string;
  has(hash: string): Promise<boolean>;
  /** Bytes of a blob; throws a Problem when there is none. */
  size(hash: string): Promise<number>;
  /** Says that they are wanted again: from now on they stay for a week. Answers those that are here. */
  renew(hashes: readonly string[]): Promise<string[]>;
  /** Writes down what comes, as it comes. More than `most` bytes throw a Problem. */
  receive(chunks: AsyncIterable<Uint8Array>, most: number): Promise<Arrived>;
  /** Gives what arrived its name. */
  keep(arrived: Arrived): Promise<void>;
  /** Lets go of what arrived, where it wasn't kept. */
  drop(arrived: Arrived): Promise<void>;
  /** Stores bytes that are at hand. */
  put(bytes: Uint8Array): Promise<string>;
  read(hash: string): Promise<Uint8Array>;
  /** Where its file lies. */
  path(hash: string): string;
  stream(hash: string, range?: Range): Readable;
}

/** Bytes that arrived and are hashed, but have no name yet. */
export interface Arrived {
  hash: string;
  bytes: number;
  path: string;
}

/** From the first to the last byte, both counted in. */
export interface Range {
  start: number;
  end: number;
}

export interface Change {
  collection: Collection;
  id: string;
  /** Of what is there now; null where it was deleted. */
  revision: number | null;
}

export interface Page {
  /** Where the last page ended; null begins. */
  after: string | null;
  limit: number;
}

export interface List<C extends Collection> {
  items: Listed<C>[];
  /** Rows that could not be read; they stay where they are. */
  skipped: { id: string; name: string; reason: string }[];
  /** Where the following page begins; null after the last. */
  next: string | null;
}

/** A list whose entries are JSON, an array. */
export interface ListText extends Omit<List<Collection>, 'items'> {
  items: string;
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

export interface Save {
  /** The revision the change was made on; null for a new document. */
  revision: number | null;
  base?: boolean;
  /** Where it is at hand already; otherwise it is drawn when it is asked for. */
  picture?: Uint8Array;
}

/** A revision that was replaced. */
export interface Past {
  revision: number;
  /** When the next took its place. */
  savedAt: string;
  name: string;
}

export interface Trashed {
  collection: Collection;
  id: string;
  name: string;
  revision: number;
  deletedAt: string;
}

/** A document that names another. */
export interface User {
  collection: Collection;
  id: string;
  name: string;
  /** It can't do without. */
  needed: boolean;
}

export interface StoredPicture {
  picture: Uint8Array | null;
  /** Whether it shows the document as it is now. */
  current: boolean;
  revision: number;
}

export interface Drawn {
  collection: Collection;
  id: string;
  revision: number;
  picture: Uint8Array;
  /** The alphas it shows, as they were. */
  of: readonly { id: string; revision: number }[];
}

export interface Cleaned {
  revisions: number;
  deleted: number;
  blobs: number;
}

export interface Sizes {
  /** Bytes on the disk. */
  files: number;
  database: number;
  /** Counts. */
  revisions: number;
  deleted: number;
}

/** Takes what is handed out; documents and revisions as lines of JSON. */
export interface Snapshot {
  documents(lines: string[]): Promise<void>;
  revisions(lines: string[]): Promise<void>;
  belt(ids: string[]): Promise<void>;
  data(blobs: { blob: string; bytes: number }[]): Promise<void>;
}

/** A document as it was. */
export interface StoredRow {
  collection: Collection;
  id: string;
  name: string;
  kind: string;
  /** The document and its head, as JSON. */
  text: string;
  head: string;
  references: References;
  revision: number;
  base: boolean;
  createdAt: string;
  updatedAt: string;
  deletedAt: string | null;
}

/** What one was before that. */
export interface StoredRevision {
  collection: Collection;
  id: string;
  revision: number;
  savedAt: string;
  name: string;
  text: string;
  references: References;
}

export interface PutBack {
  /** Read twice. */
  rows: () => AsyncIterable<{ document: StoredRow } | { past: StoredRevision }>;
  belt: readonly string[];
  /** What came since: it stays, or goes to the trash. */
  others: 'keep' | 'trash';
}

/** What became of a document; its revision is null where it went to the trash. */
export type Standing = Change;
