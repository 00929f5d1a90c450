import { pictureChecks } from '#core/checks';
import { newPicture, rasterOf, toGrey, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import { StepSchema } from '#core/settings';
import { mendOf } from './mend';
import { runStep } from './step';

const SIDE = 96;

/** A round form of one grey on a ground of another, with dirt that is fainter than any form. */
function dirty(ground: number, form: number): Picture {
  const picture = newPicture(SIDE);
  const random = seeded(3);
  for (let i = 0; i < picture.data.length; i++) {
    const away = Math.hypot((i % SIDE) - 48, Math.floor(i / SIDE) - 48);
    const speck = random() < 0.3 ? 0.03 * (form > ground ? 1 : -1) : 0;
    picture.data[i] = away < 26 ? form : Math.max(0, Math.min(1, ground + speck));
  }
  return picture;
}

test.each([
  [0, 1, 'Cut the darks'],
  [1, 0, 'Cut the lights'],
  [0.5, 1, 'Flatten the ground'],
  [0.5, 0, 'Flatten the ground'],
])('dirt on a ground of %p under a form of %p is mended by “%s”', (ground, form, label) => {
  const picture = dirty(ground, form);
  const found = pictureChecks(picture);
  expect(found.checks.find((c) => c.name === 'dirt')!.ok).toBe(false);
  const mend = mendOf('dirt', found, SIDE)!;
  expect(mend.label).toBe(label);
  if (mend.kind !== 'step') throw new Error('A step was wanted.');
  const step = StepSchema.parse({ id: '00000000-0000-4000-8000-000000000001', kind: mend.step, ...mend.given });
  const clean = toGrey(runStep(rasterOf(picture), step, { others: new Map(), scale: 1, segment: null }));
  expect(pictureChecks(clean).checks.find((c) => c.name === 'dirt')!.ok).toBe(true);
});

test('a size is offered that keeps a quarter over the true resolution, never more pixels than there are', () => {
  const found = pictureChecks(dirty(0, 1));
  const at = (value: number) => ({ ...found, checks: [{ ...found.checks[0], name: 'resolution' as const, value }] });
  expect(mendOf('resolution', at(50), 1024)).toMatchObject({ kind: 'size', size: 640 });
  expect(mendOf('resolution', at(99), 1024)).toMatchObject({ size: 1024 });
  expect(mendOf('resolution', at(1), 1024)).toMatchObject({ size: 64 });
});

test('every mend that is a step is one the recipe takes', () => {
  const found = pictureChecks(dirty(0, 1));
  for (const name of [
    'margin',
    'ring-loss',
    'ground',
    'dirt',
    'specks',
    'used-range',
    'banding',
    'seam',
    'lift',
  ] as const) {
    const mend = mendOf(name, found, SIDE);
    expect(mend?.kind).toBe('step');
    if (mend?.kind === 'step')
      expect(
        StepSchema.safeParse({ id: '00000000-0000-4000-8000-000000000001', kind: mend.step, ...mend.given }).success,
      ).toBe(true);
  }
  expect(mendOf('undercut', found, SIDE)).toBeNull();
});
