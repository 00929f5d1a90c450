/** Several things chosen at once: by a press with Ctrl or Shift, all of them, or by a box drawn round them. */
import { computed, ref, type Ref } from 'vue';

export interface Chosen {
  ids: Readonly<Ref<ReadonlySet<string>>>;
  /** In the order in which they are shown. */
  inOrder: Readonly<Ref<string[]>>;
  /** A press with a key held; true where it chose, so that it does nothing else. */
  pressed(id: string, e: Pick<MouseEvent, 'ctrlKey' | 'metaKey' | 'shiftKey'>): boolean;
  toggle(id: string): void;
  set(ids: Iterable<string>): void;
  all(): void;
  none(): void;
}

/** What isn’t shown isn’t chosen. */
export function useChosen(shown: Readonly<Ref<readonly string[]>>): Chosen {
  const own = ref<ReadonlySet<string>>(new Set());
  /** Where a run of them begins. */
  let anchor: string | null = null;
  const inOrder = computed(() => [...new Set(shown.value)].filter((id) => own.value.has(id)));
  const ids = computed<ReadonlySet<string>>(() => new Set(inOrder.value));

  function set(next: Iterable<string>): void {
    own.value = new Set(next);
  }

  function toggle(id: string): void {
    const next = new Set(ids.value);
    if (!next.delete(id)) next.add(id);
    anchor = id;
    set(next);
  }

  function run(to: string): void {
    const from = anchor === null ? -1 : shown.value.indexOf(anchor);
    const end = shown.value.indexOf(to);
    if (from < 0 || end < 0) toggle(to);
    else set([...ids.value, ...shown.value.slice(Math.min(from, end), Math.max(from, end) + 1)]);
  }

  return {
    ids,
    inOrder,
    pressed(id, e) {
      if (e.shiftKey) run(id);
      else if (e.ctrlKey || e.metaKey) toggle(id);
      else return false;
      return true;
    },
    toggle,
    set,
    all: () => set(shown.value),
    none: () => set([]),
  };
}
