/** Whatever is done and however long the store takes: a page that is gone next leaves its last change behind. */
import fc from 'fast-check';
import { DraftKeeper } from './draftKeeper';

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/**
 * A document whose draft is written in up to 4 ms and in the store only when that has ended: what is underway when the
 * page closes is undone. A small one is stashed then.
 */
function document(small: boolean, ms: () => number) {
  let doc = 0;
  let store = 0;
  let stash = 0;
  let gone = false;
  const keeper = new DraftKeeper({
    restMs: 3,
    async write() {
      const writes = doc;
      await pause(ms());
      if (!gone) store = writes;
      await pause(ms());
    },
    ...(small ? { stash: () => (stash = doc) >= 0 } : {}),
    failed: fail,
  });
  return {
    keeper,
    change(): void {
      doc++;
      keeper.later();
    },
    close: (): void => void (gone = true),
    lost: (): number => doc - Math.max(store, stash),
  };
}

const DOINGS = fc.array(fc.constantFrom('change', 'now', 'flush', 'rest', 'moment'), { maxLength: 12 });

async function done(small: boolean, doings: string[], seed: number): Promise<ReturnType<typeof document>> {
  let n = seed;
  const own = document(small, () => (n = (n * 31 + 7) % 101) % 5);
  for (const doing of doings) {
    if (doing === 'change') own.change();
    else if (doing === 'now') void own.keeper.now();
    else if (doing === 'flush') void own.keeper.flush();
    else await pause(doing === 'rest' ? 4 : 0);
  }
  return own;
}

test('a small document is stashed when the page is closed, whatever is being written', async () => {
  await fc.assert(
    fc.asyncProperty(DOINGS, fc.nat(100), async (doings, seed) => {
      const own = await done(true, doings, seed);
      own.keeper.hurry();
      expect(own.keeper.atRisk()).toBe(false);
      own.close();
      expect(own.lost()).toBe(0);
    }),
    { numRuns: 100 },
  );
});

test('of a large one is said that closing would lose it, for as long as it would and no longer', async () => {
  await fc.assert(
    fc.asyncProperty(DOINGS, fc.nat(100), async (doings, seed) => {
      const own = await done(false, doings, seed);
      if (own.lost() > 0) expect(own.keeper.atRisk()).toBe(true);
      own.keeper.hurry();
      await own.keeper.flush();
      await pause(0);
      expect(own.lost()).toBe(0);
      expect(own.keeper.atRisk()).toBe(false);
    }),
    { numRuns: 100 },
  );
});

test('one that was stashed, and changed when the page wasn’t closed after all, is at risk until it is stashed again', async () => {
  const own = document(true, () => 1);
  own.change();
  own.keeper.hurry();
  own.change();
  expect(own.keeper.atRisk()).toBe(true);
  own.keeper.hurry();
  expect([own.keeper.atRisk(), own.lost()]).toEqual([false, 0]);
  await own.keeper.flush();
  expect(own.keeper.atRisk()).toBe(false);
});

test('where there is no room to stash it the browser asks', async () => {
  const keeper = new DraftKeeper({ restMs: 3, write: () => pause(2), stash: () => false, failed: fail });
  keeper.later();
  keeper.hurry();
  expect(keeper.atRisk()).toBe(true);
  await keeper.flush();
  await pause(0);
  expect(keeper.atRisk()).toBe(false);
});

function fail(error: unknown): never {
  throw error;
}
