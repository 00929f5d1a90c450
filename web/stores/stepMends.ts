/** What mends each check of a picture: a step added, or one of the alpha's own settings changed. */
import type { ShallowRef } from 'vue';
import type { Check } from '#core/checks';
import type { Alpha, Step, StepKind } from '#core/settings';
import type { RecipeAnswer } from '../workers/recipe.worker';

interface Bench {
  answer: ShallowRef<RecipeAnswer | null>;
  steps: () => readonly Step[];
  edit: (label: string, change: (alpha: Alpha) => void) => void;
  addStep: (kind: StepKind, given?: Record<string, unknown>) => string | null;
}

const LABELS: Partial<Record<Check['name'], string>> = {
  margin: 'Pad and centre', 'ring-loss': 'Pad into the ring', dirt: 'Cut the darks', specks: 'Despeckle', ground: 'Feather to the ring', 'used-range': 'Spread the tones',
  banding: 'De-band', resolution: 'Use the true size', seam: 'Make seamless', lift: 'Even it out',
};

export function useStepMends(bench: Bench) {
  function mend(name: Check['name']): void {
    const now = bench.answer.value;
    if (!now) return;
    const found = now.checks.checks.find((c) => c.name === name);
    const round = (v: number): number => Number(Math.max(0, Math.min(1, v)).toFixed(3));
    switch (name) {
      case 'margin': return void bench.addStep('pad', { margin: 6 });
      case 'ring-loss': return void bench.addStep('pad', { margin: 15.5 });
      case 'ground': return void bench.addStep('feather', { start: 70, end: 98 });
      case 'dirt': return void bench.addStep('levels', { black: round(now.checks.ground + 0.08), white: 1 });
      case 'specks': {
        const largest = Math.max(0, ...now.checks.background.specks.map((s) => s.r)) * 100;
        return void bench.addStep('despeckle', { size: Math.min(2, Math.max(0.1, Number((largest * 1.6).toFixed(2)))), contrast: 4 });
      }
      case 'used-range': return void bench.addStep('levels', { black: round(now.checks.used[0]), white: round(Math.max(now.checks.used[0] + 0.02, now.checks.used[1])) });
      case 'banding': return void bench.addStep('deband', { step: Math.min(0.06, Math.max(0.001, Number((1.2 / Math.max(16, found?.value ?? 255)).toFixed(4)))) });
      case 'seam': return void bench.addStep('seamless');
      case 'lift': return void bench.addStep('even', { size: 25 });
      case 'resolution': return bench.edit('size', (alpha) => {
        // A quarter more than is needed, since resampling takes a little.
        alpha.size = Math.max(64, Math.min(alpha.size, Math.round((((found?.value ?? 100) / 100) * now.size * 1.25) / 8) * 8));
      });
      default:
    }
  }
  return { mend, label: (name: Check['name']): string | undefined => LABELS[name] };
}
