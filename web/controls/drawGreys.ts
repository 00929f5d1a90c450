/** Draws the small copy of an alpha on a canvas of its size. */
import type { ShownAlpha } from '../stores/shownAlpha';

export function drawGreys(canvas: HTMLCanvasElement, shown: ShownAlpha): void {
  canvas.width = shown.size;
  canvas.height = shown.size;
  const image = new ImageData(shown.size, shown.size);
  for (let i = 0; i < shown.greys.length; i++) {
    const g = shown.greys[i];
    image.data.set([g, g, g, 255], i * 4);
  }
  canvas.getContext('2d')!.putImageData(image, 0, 0);
}
