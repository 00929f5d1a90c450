/** The hand that says what is inside and what outside: its kind, its size, and the stroke that is being drawn. */
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { PickStrokeSchema, settingAt } from '#core/settings';
import { useAlphaBench } from './alphaBench';

const MOST_NUMBERS = 3990;

export const usePickStrokes = defineStore('pickStrokes', () => {
  const bench = useAlphaBench();
  const inside = ref(true);
  const size = ref(settingAt(PickStrokeSchema, 'size').fallback);
  let drawing: { id: string; began: number } | null = null;

  /** The stroke goes into the step at once, and grows with it. `other` draws the other kind than the one chosen. */
  function begin(stepId: string, x: number, y: number, other: boolean): void {
    drawing = { id: stepId, began: Date.now() };
    bench.pause(true);
    change((strokes) =>
      strokes.push(
        PickStrokeSchema.parse({ inside: inside.value !== other, size: size.value, points: [short(x), short(y)] }),
      ),
    );
  }

  function extend(x: number, y: number): void {
    change((strokes) => {
      const points = strokes.at(-1)?.points;
      if (points && points.length < MOST_NUMBERS) points.push(short(x), short(y));
    });
  }

  function end(): void {
    if (drawing) bench.pause(false);
    drawing = null;
  }

  /** Esc: the stroke that isn't released is taken back. */
  function abandon(): boolean {
    const was = drawing !== null;
    change((strokes) => strokes.pop());
    end();
    return was;
  }

  function change(make: (strokes: PickStrokes) => void): void {
    const now = drawing;
    if (!now) return;
    bench.editStep(now.id, (own) => own.kind === 'pickOut' && make(own.strokes), `stroke ${now.began}`, { held: true });
  }

  return { inside, size, begin, extend, end, abandon };
});

type PickStrokes = ReturnType<typeof PickStrokeSchema.parse>[];
const short = (v: number): number => Number(v.toFixed(5));
