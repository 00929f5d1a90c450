import { surprises } from '#core/pattern';
import { seeded } from '#core/random';
import type { RecipeAnswer } from '../workers/recipe.worker';
import type { RecipeFrom, Recipes } from '../workers/recipes';
import { useOffers } from './offers';

/** A drawer that answers when it is told to; a wish that is replaced while it waits is never answered. */
function drawer() {
  const worker: Pick<Recipes, 'preview' | 'onAnswer'> = {
    onAnswer: () => undefined,
    preview: (from) => {
      if (drawn) wanted = from;
      else drawn = from;
    },
  };
  let drawn: RecipeFrom | null = null;
  let wanted: RecipeFrom | null = null;
  return {
    worker,
    /** Finishes what is drawn. Its heights tell which offer it was. */
    answer(): boolean {
      const done = drawn;
      if (!done) return false;
      drawn = wanted;
      wanted = null;
      worker.onAnswer({ heights: Float32Array.of(seedOf(done)) } as RecipeAnswer, done);
      return true;
    },
  };
}
const seedOf = ({ made }: RecipeFrom): number => (made?.kind === 'pattern' ? made.grow.seed : NaN);

test('all offers are drawn, one after the other', () => {
  const { worker, answer } = drawer();
  const { offers, put } = useOffers(worker, 16);
  put(surprises(null, 5, true));
  while (answer());
  expect(offers.value).toHaveLength(16);
  for (const { grow, heights } of offers.value) expect(heights![0]).toBe(grow.seed);
});

test.each([1, 2, 3, 4])('a late answer of a set that was left is never shown as one of the next (seed %d)', (seed) => {
  const random = seeded(seed);
  const { worker, answer } = drawer();
  const { offers, put } = useOffers(worker, 16);
  for (let n = 0; n < 60; n++) {
    if (random() < 0.2) put(surprises(random() < 0.5 ? 'dots' : 'pebbles', 1 + Math.floor(random() * 9999), true));
    else answer();
    for (const { grow, heights } of offers.value) if (heights) expect(heights[0]).toBe(Math.fround(grow.seed));
  }
  while (answer());
  expect(offers.value.every((o) => o.heights)).toBe(true);
});
