/**
 * What a field does with a number that is typed: leaving it and Enter take it, Esc puts back what was there, arrows go
 * by a step and with Shift by ten. Anything that is no number leaves the value as it was.
 */
import { ref, watch } from 'vue';

export interface NumberBehind {
  format: (value: number) => string;
  value: () => number;
  step: () => number;
  /** Takes a number, and says what it became within its range. */
  put: (value: number) => number;
}

/** A number as people write it, or null: with a comma, a true minus, a unit behind. */
export function numberIn(typed: string): number | null {
  const number = Number.parseFloat(typed.replace(',', '.').replace('−', '-'));
  return Number.isFinite(number) ? number : null;
}

/** Digits behind the point that a step can change, at most three. */
export const digitsOf = (step: number): number =>
  step >= 1 ? 0 : Math.min(3, Math.max(0, Math.ceil(-Math.log10(step))));

/** Their fields say of all keys that they are events, and of none that it is a key. */
const isKey = (event: Event): event is KeyboardEvent => 'key' in event;

export function useTypedNumber(behind: NumberBehind) {
  const shown = (): string => behind.format(behind.value());
  const typed = ref(shown());
  let typing = false;
  watch(shown, (now) => {
    if (!typing) typed.value = now;
  });
  /** What is behind may follow a moment later: what it became is shown at once. */
  function put(value: number): void {
    typed.value = behind.format(behind.put(value));
  }

  /** Left as it was shown, it was only looked at: the value behind it may be finer. */
  function take(): void {
    const number = typed.value === shown() ? null : numberIn(typed.value);
    if (number === null) typed.value = shown();
    else put(number);
  }
  function focus(event: FocusEvent): void {
    typing = true;
    (event.target as HTMLInputElement).select();
  }
  function blur(): void {
    typing = false;
    take();
  }
  function keydown(event: Event): void {
    if (!isKey(event)) return;
    const field = event.target as HTMLInputElement;
    const sign = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (event.key === 'Enter') {
      // Leaving takes it, and the keys go back to the surface.
      field.blur();
    } else if (event.key === 'Escape') {
      typed.value = shown();
      field.blur();
    } else if (sign !== 0) {
      event.preventDefault();
      put((numberIn(typed.value) ?? behind.value()) + sign * behind.step() * (event.shiftKey ? 10 : 1));
    }
  }
  return { typed, focus, blur, keydown };
}
