import { useLocalStorage } from '@vueuse/core';
import type { Ref } from 'vue';

/** Four clays that a body can be made of. Colours are sRGB; gloss is the strength of the highlight. */
export const CLAYS = [
  { name: 'unglazed', label: 'Unglazed', clay: '#cdc0ae', gloss: 0 },
  { name: 'plaster', label: 'Plaster', clay: '#e2e0da', gloss: 0.02 },
  { name: 'wax', label: 'Wax', clay: '#9c7458', gloss: 0.34 },
  { name: 'graphite', label: 'Graphite', clay: '#7b8184', gloss: 0.2 },
] as const;
export type ClayName = (typeof CLAYS)[number]['name'];

/** How the body is looked at, kept from visit to visit. */
export function useLook(): { clay: Ref<ClayName>; facets: Ref<boolean> } {
  return { clay: useLocalStorage<ClayName>('proof-clay', 'unglazed'), facets: useLocalStorage('proof-facets', false) };
}
