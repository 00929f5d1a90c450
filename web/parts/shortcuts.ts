/** Keys of the place that is open. They rest while a person types; `?` lists them. */
import { onBeforeUnmount, onMounted, reactive } from 'vue';

export interface Shortcut {
  /** As shown, e.g. "Ctrl+Shift+Z", "D", "[". */
  keys: string;
  what: string;
  run?: (e: KeyboardEvent) => void;
  /** Held keys get both ends. */
  hold?: (down: boolean) => void;
  /** Not listed: covered by another line. */
  silent?: boolean;
}

export const active: Shortcut[] = reactive([]);

export function useShortcuts(list: readonly Shortcut[]): void {
  const down = (e: KeyboardEvent): void => {
    if (typing(e.target) && !(e.ctrlKey || e.metaKey) && e.key !== 'Escape') return;
    if (typing(e.target) && /^[zy]$/i.test(e.key)) return;
    const found = list.find((s) => matches(s.keys, e));
    if (!found) return;
    e.preventDefault();
    if (found.hold) {
      if (!e.repeat) found.hold(true);
    } else found.run?.(e);
  };
  const up = (e: KeyboardEvent): void => {
    for (const s of list) if (s.hold && e.key.toLowerCase() === s.keys.toLowerCase()) s.hold(false);
  };
  onMounted(() => {
    active.push(...list);
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
  });
  onBeforeUnmount(() => {
    for (const s of list) {
      const at = active.findIndex((a) => a.what === s.what && a.keys === s.keys);
      if (at >= 0) active.splice(at, 1);
    }
    window.removeEventListener('keydown', down);
    window.removeEventListener('keyup', up);
  });
}

function matches(keys: string, e: KeyboardEvent): boolean {
  const parts = keys.split('+');
  const key = parts.pop()!;
  if (parts.includes('Ctrl') !== (e.ctrlKey || e.metaKey)) return false;
  if (/^[a-z]$/i.test(key) && parts.includes('Alt') !== e.altKey) return false;
  // A sign such as ? already says that Shift is held.
  if (/^[a-z]$/i.test(key) && parts.includes('Shift') !== e.shiftKey) return false;
  return e.key.toLowerCase() === (key === 'Esc' ? 'escape' : key.toLowerCase());
}

function typing(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.isContentEditable || target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement
    || (target instanceof HTMLInputElement && target.type !== 'range' && target.type !== 'checkbox');
}
