/** Keys that change the brush without leaving the surface: digits for strength, brackets for size, D held to dig. */
import { BrushSchema, paintsOnly, settingAt, type Brush } from '#core/settings';
import { DigitEntry } from './digits';
import { useShortcuts, type Shortcut } from './shortcuts';

export interface BrushKeyOptions {
  brush: () => Brush | null;
  edit: (change: (brush: Brush) => void) => void;
  dig: (down: boolean) => void;
}

const SIZE_STEP = 1.12;

export function useBrushKeys(o: BrushKeyOptions): void {
  const entry = new DigitEntry();
  const size = settingAt(BrushSchema, 'stroke.size');
  const grow = (factor: number): void => {
    entry.end();
    o.edit((brush) => {
      const next = brush.stroke.size * factor;
      brush.stroke.size = Math.max(size.min, Math.min(size.max, Math.round(next / size.step) * size.step));
    });
  };
  const digits: Shortcut[] = Array.from({ length: 10 }, (_, n) => ({
    keys: String(n),
    what: `Strength ${n === 0 ? 100 : n * 10} %`,
    silent: n !== 1,
    run: (e) => {
      const strength = entry.press(n, e.timeStamp);
      o.edit((brush) => {
        if (paintsOnly(brush)) brush.colour.flow = strength;
        else brush.touch.strength = strength;
      });
    },
  }));
  digits[1].what =
    'Strength, or flow of paint, 10 %, 2 for 20 %, … 0 for 100 %; two quickly for exact per cents: 3 5, 0 5';
  useShortcuts([
    ...digits,
    { keys: '[', what: 'Smaller', run: () => grow(1 / SIZE_STEP) },
    { keys: ']', what: 'Larger', run: () => grow(SIZE_STEP) },
    { keys: 'D', what: 'Held: dig instead of lifting', hold: o.dig },
  ]);
}
