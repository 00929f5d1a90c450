/** pick_out_s and shading_ns_per_pixel: a thing found in a busy photograph, heights from shading. */
import { heightsFromShading, resize } from '#core/filter';
import { layeredNoise, seeded } from '#core/random';
import { loadGrabCut, pickMatte, segmentJob } from '#core/segment';
import type { Raster } from '#core/picture';
import { time, type Figure } from './measure';

const [WIDE, HIGH] = [2000, 1500];

function photograph(): Raster {
  const random = seeded(3);
  const coarse = 400;
  const planes = [0, 1, 2].map((k) => {
    const high = Math.round((coarse * HIGH) / WIDE);
    const data = new Float32Array(coarse * high);
    for (let i = 0; i < data.length; i++) {
      const [x, y] = [i % coarse, Math.floor(i / coarse)];
      const inside = Math.hypot(x - coarse / 2, y - high / 2) < high * 0.32;
      data[i] =
        [
          [0.2, 0.5, 0.18],
          [0.7, 0.5, 0.35],
        ][inside ? 1 : 0][k] +
        0.3 * layeredNoise(x / 12, y / 9, 5 + k, 4);
    }
    return resize({ width: coarse, height: high, data }, WIDE, HIGH).data.map((v) => v + (random() - 0.5) * 0.04);
  });
  return { width: WIDE, height: HIGH, planes };
}

export async function photographFigures(): Promise<Figure[]> {
  const segment = await loadGrabCut();
  const raster = photograph();
  const strokes = [
    { inside: true, size: 1.2, points: [0.42, 0.33, 0.5, 0.4, 0.56, 0.36] },
    { inside: false, size: 1.2, points: [0.08, 0.08, 0.92, 0.08, 0.92, 0.66] },
  ];
  const picked = time(3, 1, () => pickMatte(raster, { strokes, edge: 0.01, segment })) / 1000;
  const job = segmentJob(raster, strokes);
  const cut = time(3, 1, () => segment(job)) / 1000;
  const grey = { width: WIDE, height: HIGH, data: raster.planes[1] };
  const shading = time(2, 0, () => heightsFromShading(grey, { lightRad: 2, largest: 0.3, calm: 0.25 }));
  const copied = time(3, 1, () => resize(grey, WIDE / 2, HIGH / 2));
  const perPixel = 1e6 / (WIDE * HIGH);
  return [
    {
      key: 'pick_out_s',
      what: 'a thing picked out of 3 M pixels by two strokes, its edge refined at full size',
      value: picked,
      unit: 's',
      floor: { what: 'the cut alone, on the reduced copy', value: cut },
      target: { text: '≤ 2', met: picked <= 2 },
    },
    {
      key: 'shading_ns_per_pixel',
      what: 'heights from the shading of 3 M pixels, in two bands',
      value: shading * perPixel,
      unit: 'ns',
      floor: { what: 'reducing the same picture by half', value: copied * perPixel },
      target: { text: '≤ 1000', met: shading * perPixel <= 1000 },
    },
  ];
}
