/** Keys that change the brush without leaving the surface: digits for strength, brackets for size, Dig while held. */
import { BrushSchema, paintsOnly, settingAt, type Brush } from '#core/settings';
import { DigitEntry } from './digits';
import { useShortcuts, type Shortcut } from './shortcuts';

export interface BrushKeyOptions {
  brush: () => Brush | null;
  edit: (change: (brush: Brush) => void) => void;
  dig: (down: boolean) => void;
}

const SIZE_STEP = 1.12;
const TURN_STEP_DEGREES = 5;
const DIGITS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9] as const;

/** What digits set: the strength, of a brush that only paints its flow. Per cents. */
export function strengthOf(brush: Brush): number {
  return paintsOnly(brush) ? brush.colour.flow : brush.touch.strength;
}

export function putStrength(brush: Brush, strength: number): void {
  if (paintsOnly(brush)) brush.colour.flow = strength;
  else brush.touch.strength = strength;
}

/** The nearest size that a brush may have, body units. */
export function sizeNear(wanted: number): number {
  const { min, max, step } = settingAt(BrushSchema, 'stroke.size');
  return Number(Math.max(min, Math.min(max, Math.round(wanted / step) * step)).toFixed(6));
}

export function useBrushKeys(o: BrushKeyOptions): void {
  const entry = new DigitEntry();
  const grow = (factor: number) => (): void => {
    entry.end();
    o.edit((brush) => (brush.stroke.size = sizeNear(brush.stroke.size * factor)));
  };
  const turn = (degrees: number) => (): void => {
    entry.end();
    o.edit((brush) => (brush.form.turn = ((((brush.form.turn + degrees + 180) % 360) + 360) % 360) - 180));
  };
  const digits: Shortcut[] = DIGITS.map((n) => ({
    command: `strength${n}`,
    run: (e) => {
      const strength = entry.press(n, e.timeStamp);
      o.edit((brush) => putStrength(brush, strength));
    },
  }));
  useShortcuts([
    ...digits,
    { command: 'smaller', run: grow(1 / SIZE_STEP) },
    { command: 'larger', run: grow(SIZE_STEP) },
    { command: 'turnLeft', what: 'Turn the brush, or the chosen pieces, left', run: turn(TURN_STEP_DEGREES) },
    { command: 'turnRight', what: 'Turn the brush, or the chosen pieces, right', run: turn(-TURN_STEP_DEGREES) },
    { command: 'dig', hold: o.dig },
  ]);
}
