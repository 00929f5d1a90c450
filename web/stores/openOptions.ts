/** What a bench says of the documents it opens, and what is said of the one that is open. */
import type { Documents, StoredDocument } from '#core/stored';
import type { Draft, DraftBox } from '../api/drafts';
import type { Shelf } from './library';

export interface Found<C extends Shelf, T extends Documents[C], D extends Draft<T>> {
  /** What will be shown. */
  doc: T;
  draft: D | undefined;
  /** Null where the server has none. */
  stored: StoredDocument<C> | null;
}

export interface OpenOptions<C extends Shelf, T extends Documents[C], D extends Draft<T>> {
  collection: C;
  /** What it is called in a sentence. */
  what: (doc: T | null) => string;
  drafts: DraftBox<T, D>;
  /** From a change to its draft. */
  draftMs: number;
  /** As the server has it; null where it has none. */
  fetch?(id: string): Promise<StoredDocument<C> | null>;
  /** Said where there is neither a saved one nor a draft. */
  gone?(): string;
  /**
   * Makes ready what the document is shown with, before it is; that is shown with it, or dropped when another was
   * opened.
   */
  prepare?(found: Found<C, T, D>): Promise<{ show(): void; drop?(): void } | undefined>;
  /** The draft as it is written: what is beside the document goes with it. Null when there is none to be written. */
  draftOf?(draft: Draft<T>): Promise<D | null>;
  draftsChanged?(): Promise<void>;
  /** Names what would be saved: the same, nothing to save. Without it the document alone counts. */
  mark?(): unknown;
  /** It can't be saved now, and that is seen elsewhere. */
  blocked?(): boolean;
  /** Saves, with all that it takes. */
  send(doc: T, revision: number | null): Promise<StoredDocument<C>>;
  /** Takes over what a save made of the document, where more than the document may have changed meanwhile. */
  adopt?(saved: T): void;
  /** A save came through; of what isn't open any more too. */
  saved?(stored: StoredDocument<C>): Promise<void> | void;
  /** An error that is none: it was cancelled. */
  isCancel?(error: unknown): boolean;
  /** A taken or missing name is said at the field of the name. */
  namesAtField?: boolean;
  /** A save that runs needs what is let go when it is left: it ends first. */
  savesFirst?: boolean;
  /** Saves that wait are sent by the owner, also of what isn't open. */
  sendsPending?: boolean;
  closed?(): void;
}

/** What is said of an open document in the bar above it. */
export interface OpenState {
  unsaved: boolean;
  saving: boolean;
  pending: boolean;
  keptAt: number | null;
  /** Null where it was never saved. */
  saved: unknown;
  base?: boolean;
  /** How far it is baked; null while it isn't. */
  share?: number | null;
  /** It can't be baked. */
  vector?: boolean;
}

/** What stands on a bench, as its frame sees it. */
export interface OpenOnBench extends OpenState {
  opening: boolean;
  problem: string | null;
  conflict: boolean;
  deleted: boolean;
  keepAsCopy(): Promise<string | null>;
  save(): Promise<boolean>;
  revert(): Promise<void>;
  cancel?(): void;
}
