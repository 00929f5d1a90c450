/** Keys of the place that is open. They rest while a person types; the help key lists them. */
import { useEventListener } from '@vueuse/core';
import { inject, onBeforeUnmount, onMounted, shallowReactive, type InjectionKey } from 'vue';
import { usePreferences } from '../stores/preferences';
import type { CommandId } from './commands';
import { keysOf } from './keymap';
import { pressed } from './pressed';

interface Listed {
  /** What it does here, where that is more exact than what the command says. */
  what?: string;
  /** Not listed: covered by another line. */
  silent?: boolean;
}

export interface Shortcut extends Listed {
  command: CommandId;
  run?: (e: KeyboardEvent) => void;
  /**
   * Held keys get both ends. `released` is false where the key's end wasn't seen: the window was left, or the place.
   */
  hold?: (down: boolean, released: boolean) => void;
  /** Where it is false the key is left to whatever else it does. */
  when?: () => boolean;
}

/** What the pointer does here, told in the list. */
export interface Gesture {
  gesture: string;
  what: string;
}

export const active: (Shortcut | Gesture)[] = shallowReactive([]);

/** Whether the hand is where these keys are; they always are where nobody says so. */
export const KEYS_HERE: InjectionKey<() => boolean> = Symbol('keys here');

export function useShortcuts(list: readonly (Shortcut | Gesture)[]): void {
  const here = inject(KEYS_HERE, () => true);
  const preferences = usePreferences();
  const shortcuts = list.filter((s) => 'command' in s);
  /** By the key that holds it down: it may be let go after Ctrl or Shift was. */
  const held = new Map<string, Shortcut>();

  const down = (e: KeyboardEvent): void => {
    // What stands further in has taken it. Esc is for all who have something to cancel.
    if (e.defaultPrevented && e.key !== 'Escape') return;
    if (typing(e.target) && !(e.ctrlKey || e.metaKey) && e.key !== 'Escape') return;
    // A field has its own undo, and its own ways from word to word.
    if (typing(e.target) && /^([zy]|Arrow.*)$/i.test(e.key)) return;
    if (ownsKey(e) || !here()) return;
    const key = pressed(e);
    const found =
      key !== null &&
      shortcuts.find((s) => keysOf(s.command, preferences.now.keys).includes(key) && (s.when?.() ?? true));
    if (!found) return;
    e.preventDefault();
    if (typing(e.target)) takeTyped(e.target);
    if (!found.hold) return found.run?.(e);
    if (e.repeat || held.has(e.code)) return;
    held.set(e.code, found);
    found.hold(true, false);
  };
  const letGo = (code: string, released: boolean): void => {
    const shortcut = held.get(code);
    held.delete(code);
    shortcut?.hold?.(false, released);
  };
  // A key that is let go in another window is never heard of here.
  const leave = (): void => [...held.keys()].forEach((code) => letGo(code, false));
  onMounted(() => {
    active.push(...list);
    useEventListener(window, 'keydown', down);
    useEventListener(window, 'keyup', (e) => letGo(e.code, true));
    useEventListener(window, 'blur', leave);
  });
  onBeforeUnmount(() => {
    for (const s of list) {
      const at = active.indexOf(s);
      if (at >= 0) active.splice(at, 1);
    }
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
  // A button that was just disabled may have the focus for another moment; it presses nothing.
  const pressable = 'a, button, input, summary, [role="button"], [role="tab"], [role="menuitem"], [role="option"]';
  const at = e.key === 'Enter' || e.key === ' ' ? e.target.closest(pressable) : null;
  return at !== null && !at.matches(':disabled');
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
