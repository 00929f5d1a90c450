/** The proof that is open, for whoever wants a picture of it. */
import { onBeforeUnmount, shallowRef, watch, type ShallowRef } from 'vue';
import type { ClayView } from '../viewport/clayView';

const open = shallowRef<ClayView | null>(null);

export function useProofPicture() {
  function shownBy(view: ShallowRef<ClayView | null>): void {
    watch(view, (now) => (open.value = now));
    const mine = (): ClayView | null => view.value;
    onBeforeUnmount(() => {
      if (open.value === mine()) open.value = null;
    });
  }
  return { open, shownBy };
}

/** What is seen, as a PNG. */
export async function pngOf(picture: ImageData): Promise<Blob> {
  const canvas = new OffscreenCanvas(picture.width, picture.height);
  canvas.getContext('2d')!.putImageData(picture, 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}
