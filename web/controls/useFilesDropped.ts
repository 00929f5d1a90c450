/** Files that are dropped on a place. */
import { useDropZone, useEventListener } from '@vueuse/core';
import type { MaybeRefOrGetter, ShallowRef } from 'vue';

const holdsFiles = (items: DataTransferItemList): boolean => [...items].some(({ kind }) => kind === 'file');

/** The innermost place takes them. Answers whether files are held over it; what is dragged within the page is none. */
export function useFilesDropped(
  place: MaybeRefOrGetter<HTMLElement | null | undefined>,
  take: (data: DataTransfer) => void,
): ShallowRef<boolean> {
  return useDropZone(place, {
    onDrop: (_, e) => {
      e.stopPropagation();
      if (e.dataTransfer) take(e.dataTransfer);
    },
    checkValidity: holdsFiles,
  }).isOverDropZone;
}

/** Files that miss every such place do nothing: the browser would leave the page to show them. */
export function useNoStrayFiles(): void {
  const stray = (e: DragEvent): void => {
    if (e.defaultPrevented || !e.dataTransfer || !holdsFiles(e.dataTransfer.items)) return;
    e.preventDefault();
    e.dataTransfer.dropEffect = 'none';
  };
  useEventListener(window, ['dragover', 'drop'], stray);
}
