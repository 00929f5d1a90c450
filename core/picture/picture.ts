/** A greyscale picture in float32, row-major, first row at the top; sample centres at (i + ½)/N. */
export interface Picture {
  width: number;
  height: number;
  data: Float32Array;
}

export function newPicture(width: number, height = width, fill = 0): Picture {
  const data = new Float32Array(width * height);
  if (fill !== 0) data.fill(fill);
  return { width, height, data };
}

/** 0–1 to 0–65535, rounded and clamped. */
export function toUint16(picture: Picture): Uint16Array {
  const { data } = picture;
  const out = new Uint16Array(data.length);
  for (let i = 0; i < data.length; i++) out[i] = Math.max(0, Math.min(65535, Math.round(data[i] * 65535)));
  return out;
}

export function fromUint16(data: Uint16Array, width: number, height = width): Picture {
  if (data.length !== width * height) throw new Error(`Expected ${width} × ${height} greys, found ${data.length}.`);
  const out = new Float32Array(data.length);
  for (let i = 0; i < data.length; i++) out[i] = data[i] / 65535;
  return { width, height, data: out };
}
