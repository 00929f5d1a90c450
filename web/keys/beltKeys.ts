/** Keys that choose among the brushes at hand: the next, the one before, and the first eight by their places. */
import { useShortcuts } from './shortcuts';

const PLACES = [1, 2, 3, 4, 5, 6, 7, 8] as const;

export interface BeltKeyOptions {
  ids: () => readonly string[];
  open: () => string;
  pick: (id: string) => void;
}

/** The brush `by` places along, round from the last to the first; beside one that isn't on the belt an end of it. */
export function alongBelt(ids: readonly string[], open: string, by: 1 | -1): string | undefined {
  const at = ids.indexOf(open);
  return ids[at < 0 ? (by > 0 ? 0 : ids.length - 1) : (at + by + ids.length) % ids.length];
}

export function useBeltKeys({ ids, open, pick }: BeltKeyOptions): void {
  const take = (id: string | undefined): void => {
    if (id !== undefined && id !== open()) pick(id);
  };
  useShortcuts([
    { command: 'nextBrush', run: () => take(alongBelt(ids(), open(), 1)) },
    { command: 'lastBrush', run: () => take(alongBelt(ids(), open(), -1)) },
    ...PLACES.map((n) => ({
      command: `belt${n}` as const,
      what: 'The first brush of the belt; 2 the second, … 8 the eighth',
      silent: n !== 1,
      run: () => take(ids()[n - 1]),
    })),
  ]);
}
