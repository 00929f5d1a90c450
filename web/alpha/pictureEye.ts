/** Where a square picture lies in a view: its left upper corner and its side in CSS pixels; zoomed, panned, fitted. */
import { reactive } from 'vue';

export function pictureEye() {
  const at = reactive({ x: 0, y: 0, side: 100, width: 1, height: 1, fitted: true });
  const MARGIN = 14;

  function fit(): void {
    at.side = Math.max(40, Math.min(at.width, at.height) - 2 * MARGIN);
    at.x = (at.width - at.side) / 2;
    at.y = (at.height - at.side) / 2;
    at.fitted = true;
  }
  function resize(width: number, height: number): void {
    at.width = width;
    at.height = height;
    if (at.fitted) fit();
  }
  /** About a point of the view. */
  function zoom(factor: number, x: number, y: number, most: number): void {
    const side = Math.max(40, Math.min(most, at.side * factor));
    const f = side / at.side;
    at.x = x - (x - at.x) * f;
    at.y = y - (y - at.y) * f;
    at.side = side;
    at.fitted = false;
  }
  function pan(dx: number, dy: number): void {
    at.x += dx;
    at.y += dy;
    at.fitted = false;
  }
  /** Place of a point of the view on the picture, 0–1. */
  const toPicture = (x: number, y: number): [number, number] => [(x - at.x) / at.side, (y - at.y) / at.side];
  return { at, fit, resize, zoom, pan, toPicture };
}
