/** Small copies of alphas for showing, by the content of their files. */
import { LRUCache } from 'lru-cache';
import { defineStore } from 'pinia';
import { alphaHeights } from '#core/brush';
import type { AlphaHead } from '#core/stored';
import { getBlob } from '../api/client';
import { reduced, type ShownAlpha } from './shownAlpha';

/** Each has up to 384² heights and greys: 0.7 MB. */
const MOST = 150;

export const useShownAlphas = defineStore('shownAlphas', () => {
  const shown = new LRUCache<string, Promise<ShownAlpha>>({ max: MOST });

  function of(alpha: AlphaHead): Promise<ShownAlpha> {
    const known = shown.get(alpha.blob);
    if (known) return known;
    const made = getBlob(alpha.blob).then((bytes) => reduced(alphaHeights(alpha, bytes)));
    made.catch(() => {
      if (shown.peek(alpha.blob) === made) shown.delete(alpha.blob);
    });
    shown.set(alpha.blob, made);
    return made;
  }

  return { of };
});
