/** What the place that is open is called: its kind, and the thing in it. */
import { computed, type ComputedRef } from 'vue';
import { useRoute } from 'vue-router';
import { useLibrary } from './stores/library';

const KINDS: Record<string, string> = {
  rack: 'Rack',
  sources: 'Sources',
  bench: 'Bench',
  slab: 'Slab',
  sheet: 'Sheet',
  scan: 'Scan',
  lettering: 'Lettering',
  pattern: 'Pattern',
  part: 'Part',
  alpha: 'Alpha',
  brush: 'Brush',
  lineage: 'Lineage',
  proof: 'Proof',
  settings: 'Settings',
};

export function usePlaceName(): ComputedRef<{ kind: string; thing: string }> {
  const route = useRoute();
  const library = useLibrary();
  return computed(() => {
    const id = String(route.params['id'] ?? '');
    const found = library.brushHead(id) ?? library.alpha(id) ?? library.source(id) ?? library.part(id);
    return { kind: KINDS[String(route.name)] ?? '', thing: found?.card.name ?? '' };
  });
}
