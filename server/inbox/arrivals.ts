/**
 * What lies in the inbox, as it was seen again and again: a file is whole when it was the same for a while, is given to
 * one page at a time, and is done with once. No files and no clock in here.
 */
import { createHash } from 'node:crypto';

export interface SeenFile {
  /** Under the folder, with forward slashes. */
  path: string;
  bytes: number;
  /** When it was last written, ms. */
  changed: number;
}

export interface InboxFile {
  id: string;
  name: string;
  bytes: number;
  /** `growing` until it is whole; `given` while a page takes it in. */
  state: 'growing' | 'whole' | 'given' | 'refused';
  why: string | null;
}

export type Outcome = { ok: true } | { ok: false; why: string };

interface Entry extends SeenFile {
  id: string;
  /** Since when it is as it is. */
  since: number;
  givenAt: number | null;
  done: Outcome | null;
}

/** A file that was the same for so long is whole. */
export const QUIET_MS = 2000;
/** A page that took a file and says nothing for so long is gone: another may have it. */
export const LEASE_MS = 10 * 60_000;

export class InboxArrivals {
  private entries = new Map<string, Entry>();

  /** `refusal` says why a file can’t be taken at all; null when it may be. */
  constructor(private readonly refusal: (file: SeenFile) => string | null) {}

  /** The folder was looked at. */
  look(files: readonly SeenFile[], now: number): void {
    const next = new Map<string, Entry>();
    for (const file of files) {
      const known = this.entries.get(file.path);
      if (known && known.bytes === file.bytes && known.changed === file.changed) next.set(file.path, known);
      // One that was written anew is another file.
      else next.set(file.path, { ...file, id: idOf(file), since: now, givenAt: null, done: null });
    }
    this.entries = next;
  }

  list(now: number): InboxFile[] {
    return [...this.entries.values()].map((entry) => this.shown(entry, now));
  }

  /** Gives a whole file to whoever asks first; null when it isn’t to be had. */
  claim(id: string, now: number): SeenFile | null {
    const entry = this.find(id);
    if (!entry || this.shown(entry, now).state !== 'whole') return null;
    entry.givenAt = now;
    return entry;
  }

  /** The file that a page was given, while it is the same; null when it isn’t any more. */
  given(id: string): SeenFile | null {
    const entry = this.find(id);
    return entry && entry.givenAt !== null && entry.done === null ? entry : null;
  }

  /** What came of a file that was given. Answers it the first time alone. */
  settle(id: string, outcome: Outcome): SeenFile | null {
    const entry = this.given(id) && this.find(id);
    if (!entry) return null;
    entry.done = outcome;
    return entry;
  }

  private find(id: string): Entry | undefined {
    return [...this.entries.values()].find((entry) => entry.id === id);
  }

  private shown(entry: Entry, now: number): InboxFile {
    const { id, path, bytes, done, givenAt } = entry;
    const why = done && !done.ok ? done.why : now - entry.since >= QUIET_MS ? this.refusal(entry) : null;
    const given = givenAt !== null && (done?.ok === true || now - givenAt < LEASE_MS);
    const whole = bytes > 0 && now - entry.since >= QUIET_MS;
    const state = why !== null ? 'refused' : given ? 'given' : whole ? 'whole' : 'growing';
    return { id, name: path, bytes, state, why };
  }
}

function idOf({ path, bytes, changed }: SeenFile): string {
  return createHash('sha256').update(`${path}\n${bytes}\n${changed}`).digest('hex').slice(0, 32);
}
