import { newPicture, rasterOf, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import type { Segment } from '#core/segment';
import { settingsIn, STEP_KINDS, StepSchema, type SettingMeta, type Step } from '#core/settings';
import { ALONE, runStep, StepError } from './index';

const OTHER = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';
const others = new Map([[OTHER, newPicture(32, 32, 0.5)]]);
const [WIDE, HIGH] = [36, 24];

function picture(of: (x: number, y: number) => number): Picture {
  const made = newPicture(WIDE, HIGH);
  for (let i = 0; i < made.data.length; i++) made.data[i] = of((i % WIDE) / WIDE, Math.floor(i / WIDE) / HIGH);
  return made;
}

/** Takes what is likely for what is. */
const likely: Segment = ({ known }) => known.map((k) => k % 2);

const random = seeded(19);
const pictures: [string, Picture][] = [
  ['all black', picture(() => 0)],
  ['all white', picture(() => 1)],
  ['noise', picture(() => random())],
  ['a slope', picture((x) => x)],
  ['one white pixel', picture((x, y) => (Math.round(x * WIDE) === 9 && Math.round(y * HIGH) === 7 ? 1 : 0))],
];

function schemaOf(kind: Step['kind']) {
  return StepSchema.options.find((option) => option.shape.kind.value === kind)!;
}

/** Steps that resample ring beside hard edges by so much; a recipe's own end cuts that off. */
const RINGS: Partial<Record<Step['kind'], number>> = {
  resize: 0.2,
  repeat: 0.2,
  seamless: 0.2,
  pad: 0.2,
  straighten: 0.2,
  perspective: 0.2,
};

/** The step with each of its numbers at its least, at its most, and somewhere between. */
function variants(kind: Step['kind']): Step[] {
  const numbers = settingsIn(schemaOf(kind));
  // A resized or repeated picture is kept small enough for a test.
  const most = (key: string, meta: SettingMeta): number =>
    key === 'side' ? 96 : key === 'columns' || key === 'rows' ? 4 : meta.max;
  const made = (values: (key: string, meta: SettingMeta) => number): Step =>
    StepSchema.parse({
      id: OTHER,
      kind,
      ...(kind === 'combine' ? { alphaId: OTHER } : {}),
      ...(kind === 'pickOut' ? { strokes: [{ inside: true, points: [0.4, 0.3, 0.6, 0.4] }] } : {}),
      ...Object.fromEntries(numbers.map(([key, meta]) => [key, values(key, meta)])),
    });
  return [
    made((_, meta) => meta.min),
    made(most),
    ...Array.from({ length: 3 }, () =>
      made((key, meta) => {
        const value = meta.min + random() * (most(key, meta) - meta.min);
        return Number.isInteger(meta.step) ? Math.round(value) : value;
      }),
    ),
    ...numbers.flatMap(([one]) => [
      made((key, meta) => (key === one ? meta.min : meta.fallback)),
      made((key, meta) => (key === one ? most(key, meta) : key === 'side' ? 48 : meta.fallback)),
    ]),
  ];
}

test.each(STEP_KINDS.map((kind) => [kind]))(
  '%s at the ends of its settings, on any picture: greys stay greys, the picture it was given stays, and twice is the same',
  (kind) => {
    const room = RINGS[kind] ?? 1e-5;
    let ran = 0;
    for (const step of variants(kind)) {
      for (const [name, given] of pictures) {
        const raster = rasterOf(given);
        const before = given.data.slice();
        const run = () => {
          try {
            return runStep(raster, step, { ...ALONE, others, segment: likely });
          } catch (error) {
            // A crop that leaves nothing says so.
            if (error instanceof StepError) return null;
            throw error;
          }
        };
        const out = run();
        expect(raster.planes[0]).toEqual(before);
        if (!out) continue;
        ran++;
        const wrong = out.planes[0].findIndex((v) => !(v >= -room && v <= 1 + room));
        expect([name, JSON.stringify(step), wrong, out.planes[0].length]).toEqual([
          name,
          JSON.stringify(step),
          -1,
          out.width * out.height,
        ]);
        if (name === 'noise') expect(run()!.planes[0]).toEqual(out.planes[0]);
      }
    }
    expect(ran).toBeGreaterThanOrEqual(pictures.length);
  },
);
