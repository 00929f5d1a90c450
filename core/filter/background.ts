/**
 * Takes a background away: the matte is 0 on it, 1 on the form, soft between; the answer is the picture times the
 * matte, over black. What belongs to it: every grey near a tone; what is connected to a clicked point within the
 * tolerance of that point's grey; or what is connected to the sides within the tolerance of the sides' median.
 */
import { edgeGround, type Picture } from '#core/picture';
import { smoothstep } from './tone';

export type BackgroundChoice =
  | { by: 'tone'; tone: number }
  /** x and y 0–1 of width and height. */
  | { by: 'click'; x: number; y: number }
  | { by: 'edge' };

export interface BackgroundOptions {
  /** Greys this close belong to the background, 0–1. */
  tolerance: number;
  /** Width of the slope beyond the tolerance, 0–1. */
  soft: number;
}

/** Grain this high doesn't end a slope. */
const CLIMB = 0.004;

/** 0 on the background, 1 on the form. */
export function backgroundMatte(
  from: Picture,
  choice: BackgroundChoice,
  { tolerance, soft }: BackgroundOptions,
): Picture {
  const { width, height, data } = from;
  const tone =
    choice.by === 'tone'
      ? choice.tone
      : choice.by === 'edge'
        ? edgeGround(from)
        : data[pixelAt(from, choice.x, choice.y)];
  const reach = tolerance + Math.max(soft, 1e-6);
  const off = (i: number): number => Math.abs(data[i] - tone);
  const matte = new Float32Array(data.length).fill(1);
  if (choice.by === 'tone') {
    for (let i = 0; i < data.length; i++) matte[i] = smoothstep(tolerance, reach, off(i));
    return { width, height, data: matte };
  }
  const seeds: number[] = choice.by === 'edge' ? border(width, height) : [pixelAt(from, choice.x, choice.y)];
  flood(width, height, seeds, (i, from) => {
    const d = off(i);
    // The slope is climbed but never descended, so that what lies behind it is not reached.
    if (d >= reach || (d > tolerance && d < off(from) - CLIMB)) return false;
    matte[i] = smoothstep(tolerance, reach, d);
    return true;
  });
  return { width, height, data: matte };
}

export function removeBackground(from: Picture, choice: BackgroundChoice, options: BackgroundOptions): Picture {
  const matte = backgroundMatte(from, choice, options);
  for (let i = 0; i < matte.data.length; i++) matte.data[i] *= from.data[i];
  return matte;
}

/** Visits pixels connected to the seeds, four neighbours each; goes on, once, from those where `visit` says so. */
function flood(
  width: number,
  height: number,
  seeds: readonly number[],
  visit: (i: number, from: number) => boolean,
): void {
  const seen = new Uint8Array(width * height);
  const queue = new Int32Array(width * height);
  let end = 0;
  const meet = (i: number, from: number): void => {
    if (seen[i] || !visit(i, from)) return;
    seen[i] = 1;
    queue[end++] = i;
  };
  for (const seed of seeds) meet(seed, seed);
  for (let at = 0; at < end; at++) {
    const i = queue[at];
    const column = i % width;
    if (column > 0) meet(i - 1, i);
    if (column < width - 1) meet(i + 1, i);
    if (i >= width) meet(i - width, i);
    if (i < width * (height - 1)) meet(i + width, i);
  }
}

function border(width: number, height: number): number[] {
  const out: number[] = [];
  for (let i = 0; i < width; i++) out.push(i, (height - 1) * width + i);
  for (let j = 0; j < height; j++) out.push(j * width, j * width + width - 1);
  return out;
}

function pixelAt({ width, height }: Picture, x: number, y: number): number {
  return Math.min(height - 1, Math.floor(y * height)) * width + Math.min(width - 1, Math.floor(x * width));
}
