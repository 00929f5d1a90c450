/** What goes between the server and the thread that owns the database. */

export interface OpenOrder {
  /** Folder of the PostgreSQL data. */
  path: string;
}

export type Order =
  | { kind: 'query'; sql: string; params: readonly unknown[] }
  | { kind: 'exec'; sql: string }
  | { kind: 'close' };

export interface Answer {
  id: number;
  value?: unknown;
  error?: { message: string; code?: string | undefined; stack?: string | undefined };
}
