/** Keys of the place that is open. They rest while a person types; `?` lists them. */
import { inject, onBeforeUnmount, onMounted, shallowReactive, type InjectionKey } from 'vue';

export interface Shortcut {
  /** As shown, e.g. "Ctrl+Shift+Z", "D", "[". */
  keys: string;
  what: string;
  run?: (e: KeyboardEvent) => void;
  /**
   * Held keys get both ends. `released` is false where the key's end wasn't seen: the window was left, or the place.
   */
  hold?: (down: boolean, released: boolean) => void;
  /** Where it is false the key is left to whatever else it does. */
  when?: () => boolean;
  /** Not listed: covered by another line. */
  silent?: boolean;
}

export const active: Shortcut[] = shallowReactive([]);

/** Whether the hand is where these keys are; they always are where nobody says so. */
export const KEYS_HERE: InjectionKey<() => boolean> = Symbol('keys here');

export function useShortcuts(list: readonly Shortcut[]): void {
  const here = inject(KEYS_HERE, () => true);
  const held = new Set<Shortcut>();
  const down = (e: KeyboardEvent): void => {
    if (typing(e.target) && !(e.ctrlKey || e.metaKey) && e.key !== 'Escape') return;
    // A field has its own undo, and its own ways from word to word.
    if (typing(e.target) && /^([zy]|Arrow.*)$/i.test(e.key)) return;
    if (ownsKey(e)) return;
    const found = here() && list.find((s) => matches(s.keys, e) && (s.when?.() ?? true));
    if (!found) return;
    e.preventDefault();
    if (typing(e.target)) takeTyped(e.target);
    if (found.hold) {
      if (e.repeat) return;
      held.add(found);
      found.hold(true, false);
    } else found.run?.(e);
  };
  const up = (e: KeyboardEvent): void => {
    for (const s of [...held]) if (e.key.toLowerCase() === s.keys.toLowerCase()) letGo(s, true);
  };
  const letGo = (s: Shortcut, released: boolean): void => {
    if (held.delete(s)) s.hold!(false, released);
  };
  // A key that is let go in another window is never heard of here.
  const leave = (): void => [...held].forEach((s) => letGo(s, false));
  onMounted(() => {
    active.push(...list);
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', leave);
  });
  onBeforeUnmount(() => {
    for (const s of list) {
      const at = active.indexOf(s);
      if (at >= 0) active.splice(at, 1);
    }
    window.removeEventListener('keydown', down);
    window.removeEventListener('keyup', up);
    window.removeEventListener('blur', leave);
    leave();
  });
}

/** What is typed counts before the key does what it does: a field takes it when it is left. */
function takeTyped(field: HTMLElement): void {
  field.blur();
  field.focus();
}

/** Keys that press what has the focus, and all keys of a dialog but those that close it. */
function ownsKey(e: KeyboardEvent): boolean {
  if (!(e.target instanceof Element) || e.key === 'Escape') return false;
  if (e.target.closest('[role="dialog"][aria-modal="true"]')) return true;
  if (e.key.startsWith('Arrow')) return e.target.closest('input, [role="slider"], [role="tab"]') !== null;
  return (
    (e.key === 'Enter' || e.key === ' ') &&
    e.target.closest('a, button, input, summary, [role="button"], [role="tab"], [role="menuitem"], [role="option"]') !==
      null
  );
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

/** A list to choose from that isn't open is a field nobody types in. */
const atRest = (field: HTMLInputElement): boolean =>
  field.getAttribute('role') === 'combobox' && field.getAttribute('aria-expanded') !== 'true';

function typing(target: EventTarget | null): target is HTMLElement {
  if (!(target instanceof HTMLElement)) return false;
  return (
    target.isContentEditable ||
    target instanceof HTMLTextAreaElement ||
    (target instanceof HTMLInputElement && target.type !== 'radio' && target.type !== 'checkbox' && !atRest(target))
  );
}
