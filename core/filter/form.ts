/** Where the form is: the bounds of what differs from the ground, and a square round it. */
import { edgeGround, type Picture } from '#core/picture';
import { crop } from './shape';

export interface Box {
  left: number;
  top: number;
  /** Exclusive. */
  right: number;
  bottom: number;
}

/** Bounds of what differs from `ground` by more than `least`; null when nothing does. */
export function formBox(picture: Picture, ground: number, least = 0.01): Box | null {
  const { width, height, data } = picture;
  const box: Box = { left: width, top: height, right: 0, bottom: 0 };
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      if (Math.abs(data[j * width + i] - ground) <= least) continue;
      if (i < box.left) box.left = i;
      if (i >= box.right) box.right = i + 1;
      if (j < box.top) box.top = j;
      box.bottom = j + 1;
    }
  }
  return box.right > box.left ? box : null;
}

/** Square, with `margin` (0–1 of the side) kept clear on each side; centred on the form, or as it lies. */
export function padded(picture: Picture, margin: number, centre: boolean, ground = edgeGround(picture)): Picture {
  const box = centre ? formBox(picture, ground) : null;
  const { left, top, right, bottom } = box ?? { left: 0, top: 0, right: picture.width, bottom: picture.height };
  const side = Math.max(1, Math.round(Math.max(right - left, bottom - top) / (1 - 2 * margin)));
  return crop(
    picture,
    {
      left: Math.round((left + right - side) / 2),
      top: Math.round((top + bottom - side) / 2),
      width: side,
      height: side,
    },
    ground,
  );
}

/** Square by adding ground on the shorter sides. */
export function squared(picture: Picture): Picture {
  if (picture.width === picture.height) return picture;
  return padded(picture, 0, false);
}
