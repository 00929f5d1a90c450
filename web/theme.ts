/** Day and evening: the same roles in other colours, as the system has it or as it is set by hand. */
import { useLocalStorage, usePreferredDark } from '@vueuse/core';
import { computed, effectScope, watchEffect } from 'vue';

export const THEMES = ['system', 'day', 'evening'] as const;
export type Theme = (typeof THEMES)[number];

export const theme = useLocalStorage<Theme>('theme', 'system');

/** What the page is shown in, for as long as it is open. */
export function showTheme(): void {
  effectScope(true).run(() => {
    const dark = usePreferredDark();
    const evening = computed(() => theme.value === 'evening' || (theme.value === 'system' && dark.value));
    watchEffect(() => (document.documentElement.dataset['theme'] = evening.value ? 'evening' : 'day'));
  });
}
