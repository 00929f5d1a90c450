/** Patterns of things strewn over the square: fibres, pebbles, dots. What lies higher is seen. */
import { smoothstep } from '#core/filter';
import { newPicture, type Picture } from '#core/picture';
import { seeded, wrappedNoise } from '#core/random';
import type { GrowOf } from '#core/settings';
import { eachInDisc, modulo, periodOf, spreadOut } from './field';

export function fibres({ across, length, turn, tangle, seed, tiles }: GrowOf<'fibres'>, size: number): Picture {
  const out = newPicture(size);
  const random = seeded(seed, 11);
  const radius = 0.42 / across;
  const long = 0.05 + (length / 100) * 0.7;
  const count = Math.round((across * 2.4) / long);
  const step = radius * 0.5;
  const steps = Math.max(2, Math.round(long / step));
  for (let n = 0; n < count; n++) {
    let x = random();
    let y = random();
    let angle = (-turn * Math.PI) / 180 + (random() - 0.5) * (tangle / 100) * Math.PI;
    const bow = ((random() - 0.5) * (tangle / 100) * 2.4) / steps;
    const top = 0.35 + 0.65 * random();
    const wide = radius * (0.55 + 0.6 * random());
    if (!tiles) {
      x = x * 1.4 - 0.2;
      y = y * 1.4 - 0.2;
    }
    for (let k = 0; k <= steps; k++) {
      const t = k / steps;
      const end = Math.min(1, 6 * t, 6 * (1 - t));
      const height = top * (0.8 + 0.2 * Math.sin(Math.PI * t));
      eachInDisc(
        { size, tiles },
        {
          x: tiles ? modulo(x, 1) : x,
          y: tiles ? modulo(y, 1) : y,
          radius: Math.max(0.75 / size, wide * (0.4 + 0.6 * end)),
        },
        (at, u, v) => {
          const h = height * Math.sqrt(1 - u * u - v * v);
          if (h > out.data[at]) out.data[at] = h;
        },
      );
      angle += bow;
      x += Math.cos(angle) * step;
      y += Math.sin(angle) * step;
    }
  }
  return spreadOut(out, 0, 0.999);
}

/** Largest first, each where it doesn't lie in another. */
export function pebbles({ across, fill, vary, flat, seed, tiles }: GrowOf<'pebbles'>, size: number): Picture {
  const out = newPicture(size);
  const random = seeded(seed, 12);
  const placed: { x: number; y: number; r: number }[] = [];
  const largest = 0.62 / across;
  const smallest = largest * (1 - 0.85 * (vary / 100));
  const apart = (a: number, b: number): number => {
    const d = Math.abs(a - b);
    return tiles ? Math.min(d, 1 - d) : d;
  };
  const tries = Math.round(across * across * (3 + (fill / 100) * 40));
  for (let n = 0; n < tries; n++) {
    const r = smallest + (largest - smallest) * (1 - n / tries) ** 1.5;
    const x = random();
    const y = random();
    if (placed.some((p) => apart(p.x, x) ** 2 + apart(p.y, y) ** 2 < ((p.r + r) * 0.94) ** 2)) continue;
    placed.push({ x, y, r });
  }
  const period = periodOf(across * 3, tiles);
  for (const { x, y, r } of placed) {
    const long = 1 + 0.35 * random();
    const angle = random() * Math.PI;
    const top = (0.55 + 0.45 * random()) * Math.min(1, 0.35 + (0.65 * r) / largest);
    const c = Math.cos(angle);
    const s = Math.sin(angle);
    const power = 0.5 - 0.35 * (flat / 100);
    eachInDisc({ size, tiles }, { x, y, radius: r * 1.08 }, (at, u, v) => {
      const a = u * c + v * s;
      const b = (v * c - u * s) * long;
      const i = at % size;
      const j = (at - i) / size;
      const uneven = 0.1 * wrappedNoise((i / size) * across * 3, (j / size) * across * 3, period, period, seed + 3);
      const d = (a * a + b * b) * (1 + uneven);
      if (d >= 1) return;
      const h = top * (1 - d) ** power;
      if (h > out.data[at]) out.data[at] = h;
    });
  }
  return spreadOut(out, 0, 1);
}

export function dots(
  { across, size: diameter, jitter, vary, edge, seed, tiles }: GrowOf<'dots'>,
  size: number,
): Picture {
  const out = newPicture(size);
  const random = seeded(seed, 13);
  for (let j = 0; j < across; j++) {
    for (let i = 0; i < across; i++) {
      const x = (i + 0.5 + (random() - 0.5) * (jitter / 100)) / across;
      const y = (j + 0.5 + (random() - 0.5) * (jitter / 100)) / across;
      const r = ((diameter / 100) * 0.5 * (1 - (vary / 100) * 0.7 * random())) / across;
      const top = 1 - (vary / 100) * 0.5 * random();
      eachInDisc({ size, tiles }, { x, y, radius: r }, (at, u, v) => {
        const rho = Math.sqrt(u * u + v * v);
        const dome = Math.sqrt(1 - rho * rho);
        const disc = smoothstep(0, 0.12, 1 - rho);
        const h = top * (dome * (edge / 100) + disc * (1 - edge / 100));
        if (h > out.data[at]) out.data[at] = h;
      });
    }
  }
  return out;
}
