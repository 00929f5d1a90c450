/**
 * Wisps: how often the orbit of a chaotic map visits each place, on a logarithmic scale.
 * x' = sin(a·y) + c·cos(a·x), y' = sin(b·x) + d·cos(b·y) (C. A. Pickover, "Computers, Pattern, Chaos and Beauty",
 * 1990).
 */
import { newPicture, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import type { GrowOf } from '#core/settings';
import { modulo, spreadOut } from './field';
import { blur } from '#core/filter';

type Constants = readonly [a: number, b: number, c: number, d: number];

/** Visits a pixel, so that the faint parts don't break up into dots. */
const VISITS = 9;
const TRIES = 60;

export function wisps({ spread, twist, fine, folds, seed, tiles }: GrowOf<'wisps'>, size: number): Picture {
  const random = seeded(seed, 14);
  const map = chaotic(random, twist / 100);
  const counts = newPicture(size);
  const reach = (0.22 + 0.38 * (spread / 100)) / 2;
  let x = 0.1;
  let y = 0.1;
  const visits = Math.min(40e6, size * size * VISITS);
  const turns = Array.from(
    { length: folds },
    (_, k) => [Math.cos((2 * Math.PI * k) / folds), Math.sin((2 * Math.PI * k) / folds)] as const,
  );
  for (let n = 0; n < visits / folds; n++) {
    [x, y] = next(x, y, map);
    for (const [c, s] of turns) {
      const u = 0.5 + (x * c - y * s) * reach;
      const v = 0.5 + (x * s + y * c) * reach;
      const i = Math.floor((tiles ? modulo(u, 1) : u) * size);
      const j = Math.floor((tiles ? modulo(v, 1) : v) * size);
      if (i >= 0 && j >= 0 && i < size && j < size) counts.data[j * size + i]++;
    }
  }
  const gain = 0.05 + (fine / 100) ** 2 * 3;
  // The densest pixels are few; the answer is stretched to nearly all.
  return spreadOut(blur({ ...counts, data: counts.data.map((n) => Math.log1p(n * gain)) }, size / 1400), 0, 0.9995);
}

function next(x: number, y: number, [a, b, c, d]: Constants): [number, number] {
  return [Math.sin(a * y) + c * Math.cos(a * x), Math.sin(b * x) + d * Math.cos(b * y)];
}

/** Constants whose orbit fills many places: the first of some tries, or the fullest. */
function chaotic(random: () => number, twist: number): Constants {
  let best: Constants = [-1.4, 1.6, 1.0, 0.7];
  let most = 0;
  for (let t = 0; t < TRIES; t++) {
    const sign = random() < 0.5 ? -1 : 1;
    const map: Constants = [
      sign * (1.2 + 0.8 * random()),
      1.2 + 0.4 * twist + 0.6 * random(),
      0.4 + 0.8 * random(),
      0.3 + 0.9 * random(),
    ];
    const seen = new Uint8Array(64 * 64);
    let full = 0;
    let x = 0.1;
    let y = 0.1;
    for (let n = 0; n < 6000; n++) {
      [x, y] = next(x, y, map);
      const at = Math.floor(((y + 2.4) / 4.8) * 64) * 64 + Math.floor(((x + 2.4) / 4.8) * 64);
      if (seen[at] === 0) {
        seen[at] = 1;
        full++;
      }
    }
    if (full > most) {
      most = full;
      best = map;
    }
    if (full > 1100) break;
  }
  return best;
}
