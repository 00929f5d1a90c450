/**
 * Fills empty pixels (NaN) smoothly from their rims: coarse copies are averaged of what is there until none is empty,
 * then each finer one takes what it lacks from the coarser and is relaxed to the mean of its neighbours (Gortler,
 * Grzeszczuk, Szeliski and Cohen, "The lumigraph", 1996: pull and push; the rounds bring it near the membrane of
 * Laplace's equation). O(pixels).
 */
import { newPicture, type Picture } from '#core/picture';

const ROUNDS = 12;

/** The same picture where nothing is empty; throws when everything is. */
export function fillSmoothly(from: Picture): Picture {
  if (!from.data.some((h) => h !== h)) return from;
  return filled(from);
}

function filled(from: Picture): Picture {
  const { width, height, data } = from;
  const empty: number[] = [];
  for (let i = 0; i < data.length; i++) if (data[i] !== data[i]) empty.push(i);
  if (empty.length === 0) return from;
  if (empty.length === data.length) throw new Error('The scan doesn’t reach into the frame.');
  const coarse = filled(halved(from));
  const out: Picture = { width, height, data: data.slice() };
  for (const i of empty) out.data[i] = readHalf(coarse, i % width, Math.floor(i / width));
  for (let round = 0; round < ROUNDS; round++) for (const i of empty) out.data[i] = meanRound(out, i);
  return out;
}

function halved({ width, height, data }: Picture): Picture {
  const out = newPicture(Math.ceil(width / 2), Math.ceil(height / 2), NaN);
  for (let j = 0; j < out.height; j++) {
    for (let i = 0; i < out.width; i++) {
      let sum = 0;
      let count = 0;
      for (let b = 2 * j; b < Math.min(2 * j + 2, height); b++) {
        for (let a = 2 * i; a < Math.min(2 * i + 2, width); a++) {
          const h = data[b * width + a];
          if (h !== h) continue;
          sum += h;
          count++;
        }
      }
      if (count > 0) out.data[j * out.width + i] = sum / count;
    }
  }
  return out;
}

/** Bilinear value of the coarse copy at the middle of a fine pixel. */
function readHalf({ width, height, data }: Picture, column: number, row: number): number {
  const x = Math.max(0, Math.min(width - 1, (column + 0.5) / 2 - 0.5));
  const y = Math.max(0, Math.min(height - 1, (row + 0.5) / 2 - 0.5));
  const i = Math.min(Math.floor(x), Math.max(0, width - 2));
  const j = Math.min(Math.floor(y), Math.max(0, height - 2));
  const right = Math.min(i + 1, width - 1);
  const below = Math.min(j + 1, height - 1);
  const top = data[j * width + i] + (data[j * width + right] - data[j * width + i]) * (x - i);
  const bottom = data[below * width + i] + (data[below * width + right] - data[below * width + i]) * (x - i);
  return top + (bottom - top) * (y - j);
}

/** Beyond a side lies what is on it. */
function meanRound({ width, height, data }: Picture, i: number): number {
  const column = i % width;
  const row = (i - column) / width;
  const left = column > 0 ? i - 1 : i;
  const right = column < width - 1 ? i + 1 : i;
  const above = row > 0 ? i - width : i;
  const below = row < height - 1 ? i + width : i;
  return (data[left] + data[right] + data[above] + data[below]) / 4;
}
