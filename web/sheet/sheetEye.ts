/** Where a sheet lies in a view: its left upper corner, width and height in CSS pixels. */
import { reactive } from 'vue';

export function sheetEye(size: () => { width: number; height: number }) {
  const at = reactive({ x: 0, y: 0, w: 1, h: 1 });
  let view = { width: 1, height: 1 };
  let fitted = true;
  const MARGIN = 16;

  function fit(): void {
    const { width, height } = size();
    const scale = Math.max(1, Math.min(view.width - 2 * MARGIN, (view.height - 2 * MARGIN) * (width / height))) / width;
    Object.assign(at, {
      w: width * scale,
      h: height * scale,
      x: (view.width - width * scale) / 2,
      y: (view.height - height * scale) / 2,
    });
    fitted = true;
  }
  function resize(width: number, height: number): void {
    view = { width, height };
    if (fitted) fit();
  }
  function zoom(factor: number, x: number, y: number): void {
    const f = Math.max(60 / at.w, Math.min((size().width * 4) / at.w, factor));
    Object.assign(at, { x: x - (x - at.x) * f, y: y - (y - at.y) * f, w: at.w * f, h: at.h * f });
    fitted = false;
  }
  function pan(dx: number, dy: number): void {
    at.x += dx;
    at.y += dy;
    fitted = false;
  }
  const toSheet = (x: number, y: number): [number, number] => [(x - at.x) / at.w, (y - at.y) / at.h];
  return { at, fit, resize, zoom, pan, toSheet };
}
