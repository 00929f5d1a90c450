/**
 * A picture that holds heights already, as an alpha's bytes: to the bit where it is 16-bit grey, to the float where it
 * is one, three channels of an EXR as offsets right, up and out. What isn't square is laid on a square of its ground.
 */
import { measureMargin, ringLoss } from '#core/checks';
import { exrChannels, isExr, reliefIn } from '#core/formats';
import { edgeGround, fromUint16, LUMA, newPicture, usedRange, type Picture, type Raster } from '#core/picture';
import { guessArrival, type Guess } from '#core/arrive';
import type { Alpha } from '#core/settings';
import { decodePicture, readExr, refuse, type Decoded, type ExrPixels } from './decode';
import { readWindow } from './window';

export type HeightsAlpha = Pick<Alpha, 'size' | 'format' | 'ground' | 'report'> & {
  /** What the file says; null where it says nothing. */
  relief: number | null;
};

export interface Heights extends HeightsAlpha {
  bytes: Uint8Array;
}

const LEAST = 8;
const MOST = 8192;
const LOOKED_AT = 512;

export async function heightsOf(bytes: Uint8Array, name: string): Promise<Heights> {
  const relief = reliefIn(bytes);
  const offsets = isExr(bytes) ? await vectorsIn(bytes, name, relief) : null;
  if (offsets) return { ...vectorAlpha(offsets, name), relief };
  const decoded = await decodePicture(bytes, name);
  const side = sideOf(decoded, name);
  if (decoded.data instanceof Float32Array) {
    const picture = squared(asFloats(decoded), decoded, side);
    return { ...measured(picture), size: side, format: 'grey32f', relief, bytes: bytesOf(picture.data) };
  }
  const greys = squaredGreys(asGreys(decoded), decoded, side);
  return { ...measured(fromUint16(greys, side)), size: side, format: 'grey16', relief, bytes: bytesOf(greys) };
}

/** What the picture is; `decoded` is it, decoded. */
export async function guessOf(bytes: Uint8Array, name: string, decoded: Decoded): Promise<Guess> {
  const says = reliefIn(bytes) !== null;
  if (isExr(bytes) && (await vectorsIn(bytes, name, says ? 1 : null)))
    return { kind: 'alpha', why: 'it holds offsets in three directions' };
  const { width, height } = decoded;
  const { channels, data, ...size } = await readWindow(decoded, {
    x: 0,
    y: 0,
    width,
    height,
    side: Math.min(LOOKED_AT, Math.max(width, height)),
  });
  const scale = data instanceof Float32Array ? 1 : 1 / 65535;
  const planes = Array.from({ length: channels }, (_, k) =>
    Float32Array.from({ length: size.width * size.height }, (_, i) => data[i * channels + k] * scale),
  );
  const raster: Raster = { ...size, planes: sameEverywhere(planes) ? [planes[0]] : planes };
  return guessArrival({ raster, deep: !(decoded.data instanceof Uint8Array), says });
}

/** Grey that is written as three equal planes. */
function sameEverywhere(planes: readonly Float32Array[]): boolean {
  const [first, ...others] = planes;
  return others.every((plane) => plane.every((v, i) => Math.abs(v - first[i]) < 1e-4));
}

/** Offsets are known by the file's word, or by going below zero, which no colour does. */
async function vectorsIn(bytes: Uint8Array, name: string, relief: number | null): Promise<ExrPixels | null> {
  if (!['R', 'G', 'B'].every((channel) => exrChannels(bytes).includes(channel))) return null;
  const read = await readExr(bytes, name);
  if (read.channels < 3) return null;
  return relief !== null || read.data.some((v, i) => i % read.channels < 3 && v < -1e-4) ? read : null;
}

function vectorAlpha({ width, height, channels, data }: ExrPixels, name: string): Omit<Heights, 'relief'> {
  if (width !== height) throw refuse(`${name} is ${width} × ${height} pixels; a picture of offsets must be square.`);
  sideOf({ width, height }, name);
  const out = new Float32Array(width * height * 3);
  for (let i = 0; i < width * height; i++) {
    for (let k = 0; k < 3; k++) {
      const v = data[i * channels + k];
      if (!Number.isFinite(v))
        throw refuse(`${name} holds a pixel that isn’t a number, at ${i % width}, ${Math.floor(i / width)}.`);
      out[i * 3 + k] = v;
    }
  }
  const outwards = { width, height, data: Float32Array.from({ length: width * height }, (_, i) => out[i * 3 + 2]) };
  return { ...measured(outwards), ground: 0, size: width, format: 'vector32f', bytes: bytesOf(out) };
}

function sideOf({ width, height }: Pick<Decoded, 'width' | 'height'>, name: string): number {
  const side = Math.max(width, height);
  if (side < LEAST || side > MOST)
    throw refuse(`${name} is ${width} × ${height} pixels; an alpha has ${LEAST} to ${MOST} a side.`);
  return side;
}

function asFloats({ data, channels }: Decoded): Float32Array {
  if (channels === 1) return data as Float32Array;
  return Float32Array.from(
    { length: data.length / 3 },
    (_, i) => data[i * 3] * LUMA[0] + data[i * 3 + 1] * LUMA[1] + data[i * 3 + 2] * LUMA[2],
  );
}

/** 8 bits are spread over 16; equal planes keep their value to the bit. */
function asGreys({ data, channels }: Decoded): Uint16Array {
  const scale = data instanceof Uint8Array ? 257 : 1;
  if (channels === 1) return data instanceof Uint16Array ? data : Uint16Array.from(data, (v) => v * scale);
  return Uint16Array.from({ length: data.length / 3 }, (_, i) => {
    const [r, g, b] = [data[i * 3], data[i * 3 + 1], data[i * 3 + 2]];
    return r === g && g === b ? r * scale : Math.round((r * LUMA[0] + g * LUMA[1] + b * LUMA[2]) * scale);
  });
}

function squared(data: Float32Array, { width, height }: Pick<Decoded, 'width' | 'height'>, side: number): Picture {
  const picture = { width, height, data };
  if (width === height) return picture;
  return {
    ...newPicture(side, side, edgeGround(picture)),
    data: inTheMiddle(data, width, height, new Float32Array(side * side).fill(edgeGround(picture)), side),
  };
}

function squaredGreys(
  data: Uint16Array,
  { width, height }: Pick<Decoded, 'width' | 'height'>,
  side: number,
): Uint16Array {
  if (width === height) return data;
  const ground = Math.round(edgeGround({ width, height, data: Float32Array.from(data, (v) => v / 65535) }) * 65535);
  return inTheMiddle(data, width, height, new Uint16Array(side * side).fill(ground), side);
}

function inTheMiddle<T extends Float32Array | Uint16Array>(
  data: T,
  width: number,
  height: number,
  out: T,
  side: number,
): T {
  const [left, top] = [(side - width) >> 1, (side - height) >> 1];
  for (let j = 0; j < height; j++) out.set(data.subarray(j * width, (j + 1) * width), (top + j) * side + left);
  return out;
}

function measured(picture: Picture): Pick<Alpha, 'ground' | 'report'> {
  const ground = Math.max(0, Math.min(1, edgeGround(picture)));
  return {
    ground,
    report: {
      marginPx: measureMargin(picture, ground).marginPx,
      ringLoss: ringLoss(picture, 1, ground),
      usedRange: usedRange(picture),
      undercut: 0,
    },
  };
}

function bytesOf(data: Float32Array | Uint16Array): Uint8Array {
  return new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
}
