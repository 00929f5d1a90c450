/** Mirrors one half onto the other, or turns one sector about the middle. */
import { newPicture, sample, type Picture } from '#core/picture';
import type { Sides } from './shape';

/** The left half goes right (across), the upper half down (down), or both. */
export function mirror(from: Picture, { across, down }: Sides): Picture {
  const { width, height, data } = from;
  const out = newPicture(width, height);
  for (let j = 0; j < height; j++) {
    const row = (down ? Math.min(j, height - 1 - j) : j) * width;
    for (let i = 0; i < width; i++) out.data[j * width + i] = data[row + (across ? Math.min(i, width - 1 - i) : i)];
  }
  return out;
}

/**
 * The sector about the upward axis, `copies` times round the middle, every second one mirrored so that neighbours meet
 * without a seam. Corners beyond the shorter side are read at the edge.
 */
export function radial(from: Picture, copies: number): Picture {
  const { width, height } = from;
  const out = newPicture(width, height);
  const sector = (2 * Math.PI) / copies;
  for (let j = 0; j < height; j++) {
    const y = j + 0.5 - height / 2;
    for (let i = 0; i < width; i++) {
      const x = i + 0.5 - width / 2;
      const r = Math.sqrt(x * x + y * y);
      const angle = Math.atan2(x, -y);
      const own = Math.abs(angle - Math.round(angle / sector) * sector);
      out.data[j * width + i] = sample(from, 0.5 + (Math.sin(own) * r) / width, 0.5 - (Math.cos(own) * r) / height);
    }
  }
  return out;
}
