/** A text that stands in the page's address as well, so that a link, a reload and Back bring it again. */
import { useEventListener, watchDebounced } from '@vueuse/core';
import { ref, type Ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';

/** Typing is ahead of the address by this. */
const WRITTEN_AFTER_MS = 250;

export function useInAddress(name: string): Ref<string> {
  const route = useRoute();
  const router = useRouter();
  const { path } = route;
  const inAddress = (): string => new URLSearchParams(location.search).get(name) ?? '';
  const text = ref(inAddress());
  watchDebounced(
    text,
    (now) => {
      // Another place may have been gone to meanwhile.
      if (route.path !== path || now === inAddress()) return;
      // Without a value it is left out.
      void router.replace({ query: { ...route.query, [name]: now || undefined } });
    },
    { debounce: WRITTEN_AFTER_MS },
  );
  // Back and forward; what is typed here never comes back from the address.
  useEventListener(window, 'popstate', () => {
    if (location.pathname === path) text.value = inAddress();
  });
  return text;
}
