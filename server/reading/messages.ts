/** What goes between the server and the thread that reads large JSON. */
import type { Wanted } from './read';

export interface ToReader {
  wanted: Wanted;
  /** UTF-8. */
  bytes: Uint8Array;
}

export type FromReader =
  { value: unknown } | { problem: { status: number; code: string; message: string; details: Record<string, unknown> } };
