/**
 * Undo and redo of a document that is changed as a whole. Each state is kept as text; changes of one label in quick
 * succession are one step.
 */
import { ref, type Ref } from 'vue';
import { plain } from './plain';

const MOST_STATES = 200;

export interface HistoryOptions<T> {
  /** Changes of one label within this time are one step. */
  togetherMs: number;
  /** Takes the next state. */
  put: (next: T) => void;
}

export function useHistory<T extends object>(doc: Ref<T | null>, { togetherMs, put }: HistoryOptions<T>) {
  const past = ref<string[]>([]);
  const future = ref<string[]>([]);
  let last = { label: '', at: 0 };

  function edit(label: string, change: (next: T) => void): void {
    if (!doc.value) return;
    const before = JSON.stringify(doc.value);
    const next = plain(doc.value);
    change(next);
    if (JSON.stringify(next) === before) return;
    const now = Date.now();
    if (label !== last.label || now - last.at > togetherMs) past.value = [...past.value.slice(-MOST_STATES), before];
    last = { label, at: now };
    future.value = [];
    put(next);
  }

  function travel(from: Ref<string[]>, to: Ref<string[]>): void {
    const state = from.value.at(-1);
    if (state === undefined || !doc.value) return;
    from.value = from.value.slice(0, -1);
    to.value = [...to.value, JSON.stringify(doc.value)];
    last.label = '';
    put(JSON.parse(state) as T);
  }

  function clear(): void {
    past.value = [];
    future.value = [];
    last.label = '';
  }

  return { past, future, edit, undo: () => travel(past, future), redo: () => travel(future, past), clear };
}
