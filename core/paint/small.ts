/** A small picture of a texture, for lists. */
import { texelAt, type Texture } from './texture';

/** Displayed colours and cover, not multiplied; each pixel is the texel at its middle. O(side²). */
export function small(of: Texture, side: number): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(side * side * 4);
  const by = of.size / side;
  for (let j = 0; j < side; j++)
    for (let i = 0; i < side; i++) {
      const texel = texelAt(of, Math.floor((i + 0.5) * by), Math.floor((j + 0.5) * by));
      for (let k = 0; k < 4; k++) out[(j * side + i) * 4 + k] = texel[k] * 255;
    }
  return out;
}
