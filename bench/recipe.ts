/** recipe_ratio, and how soon a slider is answered. */
import sharp from 'sharp';
import { blur, despeckle, levels, resize } from '#core/filter';
import { growPattern } from '#core/pattern';
import { newPicture, rasterOf, toUint16, type Picture } from '#core/picture';
import { ALONE, newCache, runRecipe } from '#core/recipe';
import { newGrow, StepSchema, type Step } from '#core/settings';
import { median, type Figure } from './measure';

const SIDE = 4096;
const RUNS = 5;

export async function recipeFigures(): Promise<Figure[]> {
  const picture = enlarged(growPattern(newGrow('pebbles', 3), 1024), SIDE);
  const greys = toUint16(picture);
  const raw = { raw: { width: SIDE, height: SIDE, channels: 1 }, limitInputPixels: false } as const;

  const ours: number[] = [];
  const theirs: number[] = [];
  for (let n = 0; n <= RUNS; n++) {
    ours.push(
      took(() => resize(despeckle(blur(levels(picture, 0.1, 1.2, 0.9), 16), { radiusPx: 1, contrast: 0 }), 1024, 1024)),
    );
    theirs.push(
      await tookAsync(() =>
        sharp(greys, raw)
          .pipelineColourspace('grey16')
          .toColourspace('grey16')
          .linear(1.25, -0.125 * 65535)
          .gamma(1.2)
          .blur(16)
          .median(3)
          .resize(1024, 1024, { kernel: 'cubic' })
          .raw({ depth: 'ushort' })
          .toBuffer(),
      ),
    );
  }
  // The first of each warms up.
  const [a, b] = [ours, theirs].map((list) => median(list.slice(1))) as [number, number];
  const { slider, rebake } = sliders();
  return [
    {
      key: 'recipe_ratio',
      what: 'levels, blur, despeckle, resize at 4096²',
      value: a / b,
      unit: '×',
      floor: { what: `libvips in the same run, ${b.toFixed(0)} ms; ours ${a.toFixed(0)} ms`, value: 1 },
      target: { text: '≤ 1.5', met: a / b <= 1.5 },
    },
    slider,
    rebake,
  ];
}

const id = (n: number): string => `5f0c1d9e-3b41-4c8a-9f5e-${String(n).padStart(12, '0')}`;
const steps = (white: number): Step[] => [
  StepSchema.parse({ kind: 'even', id: id(1) }),
  StepSchema.parse({ kind: 'blur', id: id(2), radius: 0.2 }),
  StepSchema.parse({ kind: 'despeckle', id: id(3), size: 0.05 }),
  StepSchema.parse({ kind: 'background', id: id(4), by: 'tone' }),
  StepSchema.parse({ kind: 'deband', id: id(5) }),
  StepSchema.parse({ kind: 'feather', id: id(6) }),
  StepSchema.parse({ kind: 'curve', id: id(7) }),
  StepSchema.parse({ kind: 'levels', id: id(8), white }),
];

/** A slider of the last of eight steps moves: at 2048² with what came before kept; and all eight anew at 4096². */
function sliders(): { slider: Figure; rebake: Figure } {
  const at2048 = rasterOf(growPattern(newGrow('pebbles', 3), 2048));
  const cache = newCache();
  const run = (white: number): unknown => runRecipe(at2048, 'b', steps(white), ALONE, { size: 2048 }, cache);
  run(1);
  const moved = median(Array.from({ length: 9 }, (_, k) => took(() => run(0.9 - k * 0.02))));
  const copied = median(Array.from({ length: 9 }, () => took(() => at2048.planes[0].slice())));
  const at4096 = rasterOf(enlarged({ width: 2048, height: 2048, data: at2048.planes[0] }, SIDE));
  const whole = took(() => runRecipe(at4096, 'c', steps(1), ALONE, { size: SIDE }));
  return {
    slider: {
      key: 'slider_ms',
      what: 'a slider of the last step moves, 2048²',
      value: moved,
      unit: 'ms',
      floor: { what: 'copying the picture', value: copied },
      target: { text: '≤ 100', met: moved <= 100 },
    },
    rebake: {
      key: 'rebake_s',
      what: 'eight steps at 4096²',
      value: whole / 1000,
      unit: 's',
      floor: { what: 'copying the picture', value: took(() => at4096.planes[0].slice()) / 1000 },
      target: { text: 'with progress and Cancel', met: true },
    },
  };
}

function enlarged(from: Picture, side: number): Picture {
  const out = newPicture(side);
  out.data.set(resize(from, side, side).data);
  return out;
}

function took(run: () => unknown): number {
  const began = performance.now();
  run();
  return performance.now() - began;
}

async function tookAsync(run: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await run();
  return performance.now() - began;
}
