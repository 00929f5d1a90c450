/** An alpha as the engine reads it, from its stored bytes. */
import { fromUint16, newPicture, pyramid, type Picture, type Pyramid } from '#core/picture';
import { FORMAT_BYTES, type Alpha } from '#core/settings';

export interface AlphaForm {
  /** Heights, 0–1; of a vector alpha its offsets outwards, for pictures and cursors. */
  pyramid: Pyramid;
  relief: number;
  /** Offsets right, up and out in sides of the alpha; null for heights alone. */
  vector: readonly [Pyramid, Pyramid, Pyramid] | null;
  /** Its own colours, where they were sent. */
  colours?: AlphaColours;
  /** What a brush made of it last, so that another of its settings doesn't make it again. */
  shaped?: { key: string; form: AlphaForm };
}

/** Red, green, blue and cover of each pixel, sRGB bytes, first row at the top. */
export interface AlphaColours {
  size: number;
  rgba: Uint8Array;
}

export type AlphaKind = Pick<Alpha, 'format' | 'size' | 'relief'>;

/** Throws when there are more or fewer bytes than the alpha's pixels need. */
export function alphaForm(alpha: AlphaKind, bytes: ArrayBuffer): AlphaForm {
  if (alpha.format !== 'vector32f')
    return { pyramid: pyramid(alphaHeights(alpha, bytes)), relief: alpha.relief, vector: null };
  const [x, y, z] = vectorChannels(alpha, bytes);
  return {
    pyramid: pyramid(outwards(z)),
    relief: alpha.relief,
    vector: [pyramid(x), pyramid(y), pyramid(z)],
  };
}

/** Throws when its colours are more or fewer bytes than their pixels need. */
export function withColours(form: AlphaForm, size: number, rgba: Uint8Array): AlphaForm {
  if (rgba.length !== size * size * 4)
    throw new Error(`The colours of this alpha are ${rgba.length} bytes; ${size} × ${size} pixels need more.`);
  return { ...form, colours: { size, rgba } };
}

/** An alpha with its colours, where it has some. */
export function colouredForm(alpha: AlphaKind, bytes: ArrayBuffer, colours: AlphaColours | null): AlphaForm {
  const form = alphaForm(alpha, bytes);
  return colours ? withColours(form, colours.size, colours.rgba) : form;
}

/** The heights 0–1 that an alpha shows; of a vector alpha its offsets outwards, from lowest to highest. */
export function alphaHeights(alpha: AlphaKind, bytes: ArrayBuffer): Picture {
  checkSize(alpha, bytes);
  switch (alpha.format) {
    case 'grey16':
      return fromUint16(new Uint16Array(bytes), alpha.size);
    case 'grey32f':
      return { width: alpha.size, height: alpha.size, data: new Float32Array(bytes) };
    case 'vector32f':
      return outwards(vectorChannels(alpha, bytes)[2]);
  }
}

/** Offsets right, up and out. */
export function vectorChannels(alpha: AlphaKind, bytes: ArrayBuffer): [Picture, Picture, Picture] {
  checkSize(alpha, bytes);
  const offsets = new Float32Array(bytes);
  const channel = (k: number): Picture => {
    const out = newPicture(alpha.size);
    for (let i = 0; i < out.data.length; i++) out.data[i] = offsets[i * 3 + k];
    return out;
  };
  return [channel(0), channel(1), channel(2)];
}

function outwards(z: Picture): Picture {
  let low = Infinity;
  let high = -Infinity;
  for (const h of z.data) {
    low = Math.min(low, h);
    high = Math.max(high, h);
  }
  const scale = high > low ? 1 / (high - low) : 0;
  return { ...z, data: z.data.map((h) => (h - low) * scale) };
}

function checkSize(alpha: AlphaKind, bytes: ArrayBuffer): void {
  const wanted = alpha.size * alpha.size * FORMAT_BYTES[alpha.format];
  if (bytes.byteLength !== wanted) {
    throw new Error(
      `The alpha’s picture has ${bytes.byteLength} bytes; ${alpha.size} × ${alpha.size} pixels need ${wanted}.`,
    );
  }
}
