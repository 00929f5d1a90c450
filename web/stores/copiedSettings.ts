/** Settings that were copied from a brush, for the next paste in any window of this browser. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import {
  copiedIn,
  copiedSettings,
  groupsIn,
  pasteSettings,
  type Brush,
  type CopiedSettings,
  type SettingGroup,
} from '#core/settings';
import { plain } from '../api/plain';

export const useCopiedSettings = defineStore('copied-settings', () => {
  const copied = useLocalStorage<CopiedSettings | null>('copied-settings', null, {
    serializer: { read: copiedIn, write: (settings) => JSON.stringify(settings) },
  });
  /** What a paste would bring: “touch and pen of Limpet press”; empty where nothing was copied. */
  const told = computed(() => {
    if (!copied.value) return '';
    const groups = groupsIn(copied.value);
    const last = groups.at(-1)!;
    const listed = groups.length > 1 ? `${groups.slice(0, -1).join(', ')} and ${last}` : last;
    return `${listed} of “${copied.value.from}”`;
  });

  function copy(brush: Brush, groups: readonly SettingGroup[]): void {
    copied.value = copiedSettings(plain(brush) as Brush, groups);
  }
  function paste(brush: Brush): void {
    if (copied.value) pasteSettings(brush, plain(copied.value));
  }
  return { copied, told, copy, paste };
});
