/** A texture at another size: sizes are powers of two, so texels are averaged by whole numbers, or read in between. */
import { FULL, texture, tileAt, touchTile, wordAt, type Texture } from './texture';

/** O(texels of the larger of the two). */
export function resized(from: Texture, size: number): Texture {
  if (from.size === size) return from;
  return from.size > size ? averaged(from, size) : spread(from, size);
}

function averaged(from: Texture, size: number): Texture {
  const out = texture(size);
  const by = from.size / size;
  const sum = [0, 0, 0, 0];
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      sum.fill(0);
      for (let j = y * by; j < (y + 1) * by; j++)
        for (let i = x * by; i < (x + 1) * by; i++) {
          const words = from.tiles.get(tileAt(from, i, j));
          const at = wordAt(i, j);
          if (words) for (let k = 0; k < 4; k++) sum[k] += words[at + k];
        }
      put(
        out,
        x,
        y,
        sum.map((s) => s / (by * by)),
      );
    }
  return out;
}

function spread(from: Texture, size: number): Texture {
  const out = texture(size);
  const by = from.size / size;
  const last = from.size - 1;
  const read = (x: number, y: number, k: number): number => {
    const [i, j] = [Math.max(0, Math.min(last, x)), Math.max(0, Math.min(last, y))];
    return from.tiles.get(tileAt(from, i, j))?.[wordAt(i, j) + k] ?? 0;
  };
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const [px, py] = [(x + 0.5) * by - 0.5, (y + 0.5) * by - 0.5];
      const [i, j] = [Math.floor(px), Math.floor(py)];
      const [fx, fy] = [px - i, py - j];
      put(
        out,
        x,
        y,
        [0, 1, 2, 3].map(
          (k) =>
            (read(i, j, k) * (1 - fx) + read(i + 1, j, k) * fx) * (1 - fy) +
            (read(i, j + 1, k) * (1 - fx) + read(i + 1, j + 1, k) * fx) * fy,
        ),
      );
    }
  return out;
}

function put(into: Texture, x: number, y: number, texel: readonly number[]): void {
  if (texel[3] < 0.5) return;
  const words = touchTile(into, tileAt(into, x, y));
  const at = wordAt(x, y);
  for (let k = 0; k < 4; k++) words[at + k] = Math.min(FULL, Math.round(texel[k]));
}
