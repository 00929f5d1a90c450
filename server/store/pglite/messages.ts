/** What goes between the server and the thread that owns the database. */

export interface OpenOrder {
  /** Folder of the PostgreSQL data. */
  path: string;
}

export type Order =
  /** The column that is named comes as UTF-8 bytes, which go from thread to thread without being copied. */
  | { kind: 'query'; sql: string; params: readonly unknown[]; bytes?: string | undefined }
  | { kind: 'exec'; sql: string }
  | { kind: 'close' };

/** A parameter of text as UTF-8 bytes, given away and not copied: only the database’s thread makes text of it. */
export interface Utf8 {
  utf8: Uint8Array;
}

export const isUtf8 = (param: unknown): param is Utf8 => typeof param === 'object' && param !== null && 'utf8' in param;

export interface Answer {
  id: number;
  value?: unknown;
  error?: { message: string; code?: string | undefined; stack?: string | undefined };
}
