import { seeded, type Random } from '#core/random';
import { CLAY_ACTIONS, DIRECTIONS, MAPPINGS, STROKE_TYPES } from '#core/settings';
import { NO_SYMMETRY } from '#core/stroke';
import { StepCancelled } from '#core/timeline';
import {
  beginStroke,
  cutOff,
  endStroke,
  extendStroke,
  makeEdit,
  maskLastRaised,
  redo,
  refineUnderLast,
  replay,
  retrace,
  takeUpSteps,
  undo,
  type Session,
} from './index';
import { down, slabSession, start, testBrush } from './testKit';

const places = ({ surface: { mesh } }: Session): [Float32Array, Float32Array, Uint32Array] => [
  mesh.positions.slice(),
  mesh.mask.slice(),
  mesh.triangles.slice(),
];
const pickOf = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)];

/**
 * A stroke of any kind of brush; some are abandoned, some are paths whose nodes were moved, and of some the triangles
 * are split and joined: the share `refines`.
 */
function anyStroke(s: Session, random: Random, refines: number): void {
  const brush = testBrush({
    form: { tile: 0.1 + random() * 0.3, depth: 20 + random() * 60 },
    touch: {
      action: pickOf([...CLAY_ACTIONS, 'insert'] as const, random),
      direction: pickOf(DIRECTIONS, random),
      strength: 20 + random() * 80,
      overlaps: random() < 0.5 ? 'even' : 'add',
    },
    stroke: {
      type: pickOf(STROKE_TYPES, random),
      mapping: pickOf(MAPPINGS, random),
      size: 0.08 + random() * 0.2,
      spacing: 20,
      taperEnd: random() < 0.3 ? 6 : 0,
    },
    drift: { along: random() < 0.3 ? 40 : 0, size: random() < 0.3 ? 50 : 0 },
  });
  const at = (): readonly [number, number] => [random() * 1.6 - 0.8, random() * 1.6 - 0.8];
  const samples = [at(), at(), at()].map(([x, y], i) => ({ ...down(x, y), time: i * 120 }));
  beginStroke(
    s,
    start(brush, {
      seed: Math.floor(random() * 1e6),
      dig: random() < 0.3,
      symmetry: { ...NO_SYMMETRY, mirrorX: random() < 0.3 },
    }),
  );
  if (brush.strokeType === 'path') retrace(s, samples);
  else extendStroke(s, samples);
  if (random() < 0.15) return void undo(s);
  const { under } = endStroke(s, random() < refines ? { edge: 0.022, most: 14_000 } : null);
  if (under) refineUnderLast(s, under);
}

function anyStep(s: Session, random: Random, refines = 0): void {
  const which = random();
  if (which < 0.6) anyStroke(s, random, refines);
  else if (which < 0.68) makeEdit(s, { kind: 'mask-invert' });
  else if (which < 0.74) makeEdit(s, { kind: 'mask-clear' });
  else if (which < 0.8) maskLastRaised(s);
  else if (which < 0.84) cutOff(s, 0.02);
  else if (which < 0.94) undo(s);
  else redo(s);
}

test.each([1, 2, 3, 4, 5, 6])(
  'whatever was done (seed %d): undo leads back to the byte, redo and replay lead to the same again',
  (seed) => {
    const random = seeded(seed);
    const s = slabSession();
    const untouched = places(s);
    for (let n = 0; n < 40; n++) anyStep(s, random);
    expect(s.done.length).toBeGreaterThan(5);
    const done = places(s);
    expect(done[0].every(Number.isFinite) && done[1].every((m) => m >= 0 && m <= 1)).toBe(true);
    backAndForth(s, untouched);
    replay(s, new Map());
    expect(places(s)).toEqual(done);
  },
);

test.each([7, 8, 9])(
  'with triangles that are split and joined (seed %d): undo leads back to the byte, redo to the same again, also where undo copies were dropped',
  (seed) => {
    for (const undoLimit of [1e9, 2e6]) {
      const random = seeded(seed);
      const s = { ...slabSession(), undoLimit };
      const untouched = places(s);
      for (let n = 0; n < 14; n++) anyStep(s, random, 0.4);
      expect(s.origin).not.toBeNull();
      backAndForth(s, untouched);
    }
  },
);

function backAndForth(s: Session, untouched: ReturnType<typeof places>): void {
  const done = places(s);
  const steps = s.done.length;
  while (s.done.length > 0 && undo(s));
  expect(places(s)).toEqual(untouched);
  for (let n = 0; n < steps; n++) expect(redo(s)).toBe(true);
  expect(places(s)).toEqual(done);
}

test('the same steps on another surface of the same body give the same clay', () => {
  const random = seeded(11);
  const s = slabSession();
  for (let n = 0; n < 30; n++) anyStep(s, random);
  const other = slabSession();
  takeUpSteps(
    other,
    s.done.map((d) => d.step),
  );
  expect(places(other)).toEqual(places(s));
});

test('steps that are run on another surface are followed, and given up between two of them', () => {
  const random = seeded(12);
  const s = slabSession();
  while (s.done.length < 8) anyStep(s, random);
  const steps = s.done.map((d) => d.step);
  const shares: number[] = [];
  takeUpSteps(slabSession(), steps, (share) => shares.push(share) > 0);
  const n = shares.length;
  expect(n).toBeGreaterThan(4);
  expect(shares).toEqual(Array.from({ length: n }, (_, i) => i / n));
  const other = slabSession();
  expect(() => takeUpSteps(other, steps, (share) => share < 0.5)).toThrow(StepCancelled);
  expect(other.done).toHaveLength(Math.ceil(n / 2));
});

test.each(
  STROKE_TYPES.flatMap(
    (type) =>
      [
        [type, 'lift'],
        [type, 'move'],
      ] as const,
  ),
)(
  '%s with %s: samples one by one, all at once, or with a jump of the pen behind them come to the same',
  (type, action) => {
    const brush = testBrush({
      touch: { action },
      stroke: { type, size: 0.2, taperEnd: 3, steady: 20 },
      pen: {
        speedSize: {
          low: 50,
          high: 120,
          curve: [
            { x: 0, y: 0, corner: true },
            { x: 1, y: 1, corner: true },
          ],
        },
      },
    });
    const samples = [
      [-0.3, 0],
      [-0.1, 0.1],
      [0.1, 0.05],
      [0.2, 0.3],
    ].map(([x, y], i) => ({ ...down(x, y), time: i * 90 }));
    const jump = { ...down(NaN, 0), time: 400 };
    const laid = (batches: (typeof samples)[]) => {
      const s = slabSession();
      beginStroke(s, start(brush));
      for (const batch of batches) extendStroke(s, batch);
      endStroke(s);
      return places(s)[0];
    };
    const once = laid([samples]);
    expect(once).not.toEqual(places(slabSession())[0]);
    expect(laid(samples.map((sample) => [sample]))).toEqual(once);
    expect(laid([samples.slice(0, 2), [...samples.slice(2), jump]])).toEqual(once);
  },
);
