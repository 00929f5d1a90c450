/** Asks for files. What is chosen twice in a row is handed over twice. */
import { useFileDialog } from '@vueuse/core';

/** Pictures that are read: heights, photographs, and drawings of outlines. */
export const PICTURE_ENDINGS = '.png,.jpg,.jpeg,.webp,.tif,.tiff,.exr,.svg';

export interface FilesWanted {
  /** Endings with their dots, or media types, with commas. */
  accept?: string;
  several?: boolean;
  /** A whole folder, and those in it. */
  folder?: boolean;
}

export function usePickFiles(wanted: FilesWanted, take: (files: readonly File[]) => void): () => void {
  const dialog = useFileDialog({
    accept: wanted.accept ?? '*',
    multiple: wanted.several ?? false,
    directory: wanted.folder ?? false,
    reset: true,
  });
  dialog.onChange((files) => {
    if (files?.length) take([...files]);
  });
  return () => dialog.open();
}
