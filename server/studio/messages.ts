/** What goes between the server and the studio's process. */
import type { Job } from './jobs';

export interface ToStudio {
  job: Job;
  /** Files that have no name yet, by the hash they will have. */
  arrived: Record<string, string>;
}

export type FromStudio =
  | { kind: 'ready' }
  | { kind: 'done'; value: unknown }
  | {
      kind: 'failed';
      message: string;
      stack?: string | undefined;
      problem?: { status: number; code: string; details: Record<string, unknown> };
    };
