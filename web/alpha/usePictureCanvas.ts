/** Draws a square picture on the view's canvas where the eye has it, once or three by three. */
import { onMounted, watch, type Ref } from 'vue';
import type { pictureEye } from './pictureEye';

/** Heights 0–1, or colours as they are. */
export type ShownPicture = { size: number } & ({ heights: Float32Array } | { rgba: Uint8ClampedArray<ArrayBuffer> });

export function usePictureCanvas(options: {
  canvas: Ref<HTMLCanvasElement | undefined>;
  eye: ReturnType<typeof pictureEye>;
  shown: Ref<ShownPicture | null>;
  repeated: Ref<boolean>;
}): void {
  const { canvas, eye, shown, repeated } = options;
  const tile = document.createElement('canvas');

  function fill(picture: ShownPicture | null): void {
    if (!picture) return;
    const { size } = picture;
    tile.width = size;
    tile.height = size;
    const image = 'rgba' in picture ? new ImageData(picture.rgba, size, size) : greysOf(picture.heights, size);
    tile.getContext('2d')!.putImageData(image, 0, 0);
    draw();
  }

  function draw(): void {
    const to = canvas.value;
    if (!to || !shown.value) return;
    const ratio = window.devicePixelRatio || 1;
    to.width = Math.max(1, Math.round(eye.at.width * ratio));
    to.height = Math.max(1, Math.round(eye.at.height * ratio));
    const context = to.getContext('2d')!;
    const { x, y, side } = eye.at;
    context.imageSmoothingEnabled = side * ratio < shown.value.size * 3;
    context.imageSmoothingQuality = 'high';
    if (!repeated.value) {
      context.drawImage(tile, x * ratio, y * ratio, side * ratio, side * ratio);
      return;
    }
    const third = (side * ratio) / 3;
    for (let j = 0; j < 3; j++)
      for (let i = 0; i < 3; i++)
        context.drawImage(
          tile,
          Math.floor(x * ratio + i * third),
          Math.floor(y * ratio + j * third),
          Math.ceil(third),
          Math.ceil(third),
        );
  }

  watch(shown, fill, { immediate: true });
  watch([() => ({ ...eye.at }), repeated], draw);
  onMounted(draw);
}

function greysOf(heights: Float32Array, size: number): ImageData {
  const image = new ImageData(size, size);
  const words = new Uint32Array(image.data.buffer);
  for (let i = 0; i < heights.length; i++) {
    const g = Math.max(0, Math.min(255, Math.round(heights[i] * 255)));
    words[i] = 0xff000000 | (g << 16) | (g << 8) | g;
  }
  return image;
}
