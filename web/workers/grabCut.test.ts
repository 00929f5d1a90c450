import { StepError } from '#core/recipe';
import { seeded } from '#core/random';
import type { SegmentJob } from '#core/segment';
import { Masks } from './grabCut';

const jobOf = (n: number): SegmentJob => ({
  width: 4,
  height: 2,
  rgb: Uint8Array.from({ length: 24 }, (_, i) => (i * n) % 251),
  known: new Uint8Array(8).fill(n % 4),
});
/** A mask that tells whose it is. */
const maskOf = ({ rgb }: SegmentJob): Uint8Array => rgb.slice(0, 8);

test.each(Array.from({ length: 20 }, (_, seed) => seed))(
  'runs beside each other, in whatever order they are answered or fail, each get their own masks (seed %d)',
  async (seed) => {
    const random = seeded(seed, 5);
    const pending: (() => void)[] = [];
    const masks = new Masks((job) => {
      const fails = random() < 0.3;
      return new Promise((done, fail) =>
        pending.push(() => (fails ? fail(new Error('It was ended.')) : done(maskOf(job)))),
      );
    });
    /** A recipe of some steps that pick out. */
    const runs = Array.from({ length: 8 }, () =>
      Array.from({ length: 1 + Math.floor(random() * 3) }, () => 1 + Math.floor(random() * 6)),
    );
    const answers = runs.map((wanted) =>
      masks.complete(() =>
        wanted.map((n) => {
          try {
            return masks.segment(jobOf(n));
          } catch (error) {
            if (error instanceof StepError) return error.message;
            throw error;
          }
        }),
      ),
    );
    let going = true;
    const all = Promise.all(answers).finally(() => (going = false));
    while (going) {
      if (pending.length > 0) pending.splice(Math.floor(random() * pending.length), 1)[0]!();
      await new Promise((done) => setImmediate(done));
    }
    (await all).forEach((got, i) =>
      got.forEach((mask, k) => {
        if (typeof mask === 'string') expect(mask).toBe('The thing can’t be picked out. It was ended.');
        else expect(mask).toEqual(maskOf(jobOf(runs[i]![k]!)));
      }),
    );
  },
);

test('what failed is tried again by the next run; what is known isn’t cut twice', async () => {
  let cuts = 0;
  const masks = new Masks((job) => (++cuts === 1 ? Promise.reject(new Error('Away.')) : Promise.resolve(maskOf(job))));
  const run = () =>
    masks.complete(() => {
      try {
        return masks.segment(jobOf(3));
      } catch (error) {
        return (error as Error).message;
      }
    });
  expect(await run()).toContain('Away.');
  expect(await run()).toEqual(maskOf(jobOf(3)));
  expect(await run()).toEqual(maskOf(jobOf(3)));
  expect(cuts).toBe(2);
});
