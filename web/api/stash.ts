/**
 * Drafts that a page stashes in the moment it is closed. What its database hasn’t begun by then is undone, although it
 * was committed; this store takes a draft in the same breath. Here it stays until the database has it.
 */

const PREFIX = 'draft-stash:';

/** A draft as it was then; null where there was no unsaved work any more. */
export interface Stashed<D> {
  keptAt: number;
  draft: D | null;
}

function storage(): Storage | null {
  try {
    return globalThis.localStorage ?? null;
  } catch {
    // Turned off by the browser’s settings.
    return null;
  }
}

/** Answers whether there was room for it. */
export function stash(name: string, draft: Stashed<unknown>): boolean {
  try {
    const there = storage();
    there?.setItem(PREFIX + name, JSON.stringify(draft));
    return there !== null;
  } catch {
    return false;
  }
}

/** Names of all that is stashed. */
export function stashedNames(): string[] {
  const there = storage();
  return Array.from({ length: there?.length ?? 0 }, (_, i) => there!.key(i) ?? '')
    .filter((key) => key.startsWith(PREFIX))
    .map((key) => key.slice(PREFIX.length));
}

/** As text, so that it can be told from what is stashed later. */
export function stashedText(name: string): string | null {
  return storage()?.getItem(PREFIX + name) ?? null;
}

/** Null where it can’t be read. */
export function readStashed<D>(text: string): Stashed<D> | null {
  try {
    const read = JSON.parse(text) as Partial<Stashed<D>> | null;
    return read && typeof read.keptAt === 'number' && read.draft !== undefined ? (read as Stashed<D>) : null;
  } catch {
    return null;
  }
}

/** The database has it: it goes, unless something was stashed since. */
export function unstash(name: string, text: string | null): void {
  if (text !== null && stashedText(name) === text) storage()?.removeItem(PREFIX + name);
}
