/**
 * Patterns of layered gradient noise: soft, ridges (Musgrave's ridged multifractal, 1994, with the domain bent),
 * ripple.
 */
import { smoothstep } from '#core/filter';
import type { Picture } from '#core/picture';
import { wrappedLayers, wrappedNoise } from '#core/random';
import type { GrowOf } from '#core/settings';
import { fill, periodOf, spreadOut } from './field';

export function soft({ across, octaves, rough, stretch, seed, tiles }: GrowOf<'soft'>, size: number): Picture {
  const columns = Math.max(1, Math.round(across * (1 - 0.88 * (stretch / 100))));
  return spreadOut(
    fill(size, (x, y) => {
      let sum = 0;
      let height = 1;
      for (let o = 0, scale = 1; o < octaves; o++, scale *= 2) {
        sum +=
          height *
          wrappedNoise(
            x * columns * scale,
            y * across * scale,
            periodOf(columns * scale, tiles),
            periodOf(across * scale, tiles),
            seed + o * 1013,
          );
        height *= rough / 100;
      }
      return sum;
    }),
  );
}

export function ridges({ across, octaves, sharp, bend, seed, tiles }: GrowOf<'ridges'>, size: number): Picture {
  const period = periodOf(across, tiles);
  const power = 1 + (sharp / 100) * 5;
  return spreadOut(
    fill(size, (x, y) => {
      const wx = (bend / 100) * wrappedLayers(x * across, y * across, period, seed + 71, 2, 0.5);
      const wy = (bend / 100) * wrappedLayers(x * across, y * across, period, seed + 137, 2, 0.5);
      let sum = 0;
      let height = 1;
      let before = 1;
      for (let o = 0, scale = 1; o < octaves; o++, scale *= 2) {
        const n = wrappedNoise(
          (x * across + wx) * scale,
          (y * across + wy) * scale,
          period * scale,
          period * scale,
          seed + o * 1013,
        );
        const crest = (1 - Math.abs(n)) ** power * before;
        sum += crest * height;
        before = Math.min(1, crest * 1.6);
        height *= 0.5;
      }
      return sum;
    }),
  );
}

export function ripple({ across, bend, lean, fork, seed, tiles }: GrowOf<'ripple'>, size: number): Picture {
  const period = periodOf(3, tiles);
  const second = across + Math.max(1, Math.round(across * 0.12));
  const skew = (lean / 100) * 0.8;
  const crest = (phase: number): number => {
    const t = phase - Math.floor(phase);
    // The crest leans: it rises over the longer part of the way and falls over the rest.
    const top = 0.5 + skew / 2;
    const s = t < top ? t / top : (1 - t) / (1 - top);
    return 0.5 - 0.5 * Math.cos(Math.PI * s);
  };
  return spreadOut(
    fill(size, (x, y) => {
      const warp = (bend / 100) * 1.1 * wrappedLayers(x * 3, y * 3, period, seed, 3, 0.45);
      const mask = smoothstep(
        -0.1,
        0.45,
        fork / 100 - 0.45 + 1.3 * wrappedNoise(x * 2, y * 2, periodOf(2, tiles), periodOf(2, tiles), seed + 911),
      );
      const a = crest(y * across + warp);
      return mask <= 0 ? a : a + (crest(y * second + warp) - a) * mask;
    }),
  );
}
