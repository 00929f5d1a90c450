/** Day and evening: the same roles in other colours, as the system has it or as it is set by hand. */
import { usePreferredDark } from '@vueuse/core';
import { computed, effectScope, watchEffect } from 'vue';
import { usePreferences } from './stores/preferences';

/** What the page is shown in, for as long as it is open. */
export function showTheme(): void {
  effectScope(true).run(() => {
    const preferences = usePreferences();
    const dark = usePreferredDark();
    const evening = computed(() => {
      const { theme } = preferences.now;
      return theme === 'evening' || (theme === 'system' && dark.value);
    });
    watchEffect(() => (document.documentElement.dataset['theme'] = evening.value ? 'evening' : 'day'));
  });
}
