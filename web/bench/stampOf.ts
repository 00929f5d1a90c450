/** The brush as its profile and checks see it: its settings in the engine's units, with a small copy of its alpha. */
import { shallowRef, watch, type Ref } from 'vue';
import { resolveBrush, type AlphaForm, type ResolvedBrush } from '#core/brush';
import { pyramid } from '#core/picture';
import type { AlphaHead } from '#core/stored';
import type { Brush } from '#core/settings';
import { useShownAlphas } from '../stores/shownAlphas';

export function useStampOf(brush: () => Brush, alpha: () => AlphaHead | null): Readonly<Ref<ResolvedBrush | null>> {
  const alphas = useShownAlphas();
  const form = shallowRef<{ blob: string; form: AlphaForm } | null>(null);
  const stamp = shallowRef<ResolvedBrush | null>(null);

  function resolve(): void {
    const now = alpha();
    // Until its picture is there, a brush with an alpha has no profile to show.
    if (now && form.value?.blob !== now.blob) return;
    stamp.value = resolveBrush(brush(), now && form.value ? form.value.form : null);
  }

  watch(
    () => alpha()?.blob,
    async (blob) => {
      const now = alpha();
      if (now && blob) {
        const shown = await alphas.of(now).catch(() => null);
        if (!shown || alpha()?.blob !== blob) return;
        form.value = {
          blob,
          form: {
            pyramid: pyramid({ width: shown.size, height: shown.size, data: shown.heights }),
            relief: now.relief,
            vector: null,
          },
        };
      }
      resolve();
    },
    { immediate: true },
  );
  watch(() => JSON.stringify([brush().form, brush().touch, brush().stroke]), resolve);
  return stamp;
}
