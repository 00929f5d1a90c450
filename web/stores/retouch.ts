/** The retouching hand: the tool with its settings, the point copied from, and the stroke that is being drawn. */
import { defineStore } from 'pinia';
import { reactive, ref } from 'vue';
import { RetouchStrokeSchema, type RetouchStroke } from '#core/settings';
import { useAlphaBench } from './alphaBench';

type Tool = Omit<RetouchStroke, 'points' | 'from'>;

export const useRetouch = defineStore('retouch', () => {
  const start = RetouchStrokeSchema.parse({ tool: 'heal', points: [0, 0, 1] });
  const tool = reactive<Tool>({
    tool: start.tool,
    size: start.size,
    strength: start.strength,
    hardness: start.hardness,
    range: start.range,
    grey: start.grey,
  });
  /** Where copies are taken from, 0–1 of the side. */
  const source = ref<[number, number] | null>(null);
  let drawing: { id: string; began: number } | null = null;
  const bench = useAlphaBench();

  /** The stroke goes into the step at once, and grows with it: what is seen is what is kept. */
  function begin(stepId: string, x: number, y: number, pressure: number): void {
    if (tool.tool === 'copy' && !source.value) return;
    const from: [number, number] =
      source.value && tool.tool === 'copy' ? [source.value[0] - x, source.value[1] - y] : [0, 0];
    drawing = { id: stepId, began: Date.now() };
    bench.editStep(
      stepId,
      (own) => {
        if (own.kind === 'retouch')
          own.strokes.push(RetouchStrokeSchema.parse({ ...tool, from, points: [x, y, pressure] }));
      },
      `stroke ${drawing.began}`,
      { held: true },
    );
  }

  function extend(x: number, y: number, pressure: number): void {
    const now = drawing;
    if (!now) return;
    bench.editStep(
      now.id,
      (own) => {
        if (own.kind !== 'retouch') return;
        const points = own.strokes.at(-1)?.points;
        if (points && points.length < 5990)
          points.push(Number(x.toFixed(5)), Number(y.toFixed(5)), Number(pressure.toFixed(3)));
      },
      `stroke ${now.began}`,
      { held: true },
    );
  }

  function end(): void {
    drawing = null;
  }

  /** Esc: the stroke that isn't released is taken back. */
  function abandon(): boolean {
    const now = drawing;
    if (!now) return false;
    drawing = null;
    bench.editStep(
      now.id,
      (own) => {
        if (own.kind === 'retouch') own.strokes.pop();
      },
      `stroke ${now.began}`,
      { held: true },
    );
    return true;
  }

  return { tool, source, begin, extend, end, abandon, isDrawing: () => drawing !== null };
});
