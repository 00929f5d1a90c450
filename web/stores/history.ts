/**
 * Undo and redo of a document that is changed as a whole. Each state is kept as text, all of them within a budget of
 * bytes; changes of one label in quick succession are one step. The history of a document that is left is kept for a
 * while, and goes on where it was when the same state is opened again.
 */
import { ref, type Ref } from 'vue';
import { plain } from '../api/plain';

/** Of all states of one document, and of all that were left, in characters of their text. */
const MOST_LENGTH = 16 * 2 ** 20;
const MOST_LEFT = 16 * 2 ** 20;

export interface HistoryOptions<T> {
  /** Changes of one label within this time are one step. */
  togetherMs: number;
  /** Takes the next state. */
  put: (next: T) => void;
  mostLength?: number;
}

interface Left {
  now: string;
  past: string[];
  future: string[];
}

export function useHistory<T extends { id: string }>(
  doc: Ref<T | null>,
  { togetherMs, put, mostLength = MOST_LENGTH }: HistoryOptions<T>,
) {
  const past = ref<string[]>([]);
  const future = ref<string[]>([]);
  const left = new Map<string, Left>();
  let last = { label: '', at: 0 };

  /** `held` says that the hand holds on: changes of one label are one step then, however long it takes. */
  function edit(label: string, change: (next: T) => void, { held = false } = {}): void {
    if (!doc.value) return;
    const before = JSON.stringify(doc.value);
    const next = plain(doc.value);
    change(next);
    if (JSON.stringify(next) === before) return;
    const now = Date.now();
    if (label !== last.label || (!held && now - last.at > togetherMs))
      past.value = newest([...past.value, before], mostLength);
    last = { label, at: now };
    future.value = [];
    put(next);
  }

  function travel(from: Ref<string[]>, to: Ref<string[]>): void {
    const state = from.value.at(-1);
    if (state === undefined || !doc.value) return;
    from.value = from.value.slice(0, -1);
    to.value = newest([...to.value, JSON.stringify(doc.value)], mostLength);
    last.label = '';
    put(JSON.parse(state) as T);
  }

  /** The open document is left: its history waits for it. */
  function close(): void {
    if (doc.value && past.value.length + future.value.length > 0) {
      left.delete(doc.value.id);
      left.set(doc.value.id, { now: JSON.stringify(doc.value), past: past.value, future: future.value });
      let sum = 0;
      for (const [id, { past: p, future: f }] of [...left].reverse()) {
        sum += lengthOf(p) + lengthOf(f);
        if (sum > MOST_LEFT) left.delete(id);
      }
    }
    past.value = [];
    future.value = [];
    last.label = '';
  }

  /** A document was opened: where it is as it was left, so is its history. */
  function resume(): void {
    const own = doc.value && left.get(doc.value.id);
    if (!doc.value || !own) return;
    left.delete(doc.value.id);
    if (own.now !== JSON.stringify(doc.value)) return;
    past.value = own.past;
    future.value = own.future;
  }

  return { past, future, edit, undo: () => travel(past, future), redo: () => travel(future, past), close, resume };
}

function lengthOf(states: readonly string[]): number {
  return states.reduce((sum, s) => sum + s.length, 0);
}

/** The last ones that fit; always the very last, so that what was just done can be undone. */
function newest(states: string[], most: number): string[] {
  let sum = 0;
  let first = states.length;
  while (first > 0 && (first === states.length || sum + states[first - 1].length <= most))
    sum += states[--first].length;
  return states.slice(first);
}
