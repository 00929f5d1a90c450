import { SetFormSchema, SlabSchema, SOURCE_VERSION, type Slab } from '#core/settings';
import { besideOf, besideText, BesideSteps } from './besideSteps';

const slab = (): Slab =>
  SlabSchema.parse({
    version: SOURCE_VERSION,
    kind: 'slab',
    id: crypto.randomUUID(),
    card: { name: 'Slab' },
    cells: 64,
    blob: null,
    setForms: ['a', 'b'].map(() =>
      SetFormSchema.parse({ id: crypto.randomUUID(), form: 'dome', size: 0.3, height: 0.1 }),
    ),
  });
const { now } = Date;
let late = 0;
beforeEach(() => {
  late = 0;
  Date.now = () => 1e12 + late;
});
afterEach(() => {
  Date.now = now;
});

/** Changes a slab and answers the step it is part of. */
function changes(own: Slab, steps = new BesideSteps()) {
  return {
    steps,
    change: (by: (s: Slab) => void) => {
      const before = besideText(own);
      by(own);
      return steps.step(before, besideText(own));
    },
  };
}

test('dragging one set form is one step from where it lay first; another set form, or a rest, begins another', () => {
  const own = slab();
  const { change } = changes(own);
  const first = besideText(own);
  const drags = [0.1, 0.2, 0.3].map((x) => change((s) => Object.assign(s.setForms[0], { x, y: -x })));
  expect(new Set(drags.map((d) => d.id)).size).toBe(1);
  expect(drags.every((d) => d.before === first)).toBe(true);
  expect(change((s) => (s.setForms[1].x = 0.5)).id).toBe(drags[0].id + 1);
  late += 2000;
  expect(change((s) => (s.setForms[1].x = 0.6)).id).toBe(drags[0].id + 2);
});

test('ended, the same kind of change is a step of its own', () => {
  const own = slab();
  const { change, steps } = changes(own);
  const first = change((s) => (s.cast.frame.side = 1.2));
  steps.end();
  const second = change((s) => (s.cast.frame.side = 1.3));
  expect(second.id).toBe(first.id + 1);
  expect(besideOf(second.before).cast.frame.side).toBe(1.2);
  expect(besideOf(second.after).cast.frame.side).toBe(1.3);
});

test('adding and taking away are told apart', () => {
  const own = slab();
  const { change } = changes(own);
  const [setForm] = own.setForms;
  const away = change((s) => s.setForms.pop());
  const back = change((s) => s.setForms.push(setForm!));
  expect(back.id).not.toBe(away.id);
});
