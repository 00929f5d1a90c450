/** Whatever is done and however long the store takes: a page that is gone next leaves its last change behind. */
import fc from 'fast-check';
import { DraftKeeper } from './draftKeeper';

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** A document whose draft is written in `ms`, handed over at once or gathered for as long first. */
function document(straight: boolean, ms: () => number) {
  let doc = 0;
  let store = 0;
  let gone = false;
  const keeper = new DraftKeeper({
    restMs: 3,
    straight,
    async write() {
      if (!straight) await pause(ms());
      // What is handed over is committed: it stays, though the answer comes after the page is gone.
      if (!gone) store = doc;
      await pause(ms());
    },
    failed: (error) => {
      throw error;
    },
  });
  return {
    keeper,
    change(): void {
      doc++;
      keeper.later();
    },
    close: (): void => void (gone = true),
    lost: (): number => doc - store,
  };
}

const DOINGS = fc.array(fc.constantFrom('change', 'now', 'flush', 'rest', 'moment'), { maxLength: 12 });

/** Does it with writes that take up to 4 ms. */
async function done(straight: boolean, doings: string[], seed: number): Promise<ReturnType<typeof document>> {
  let n = seed;
  const own = document(straight, () => (n = (n * 31 + 7) % 101) % 5);
  for (const doing of doings) {
    if (doing === 'change') own.change();
    else if (doing === 'now') void own.keeper.now();
    else if (doing === 'flush') void own.keeper.flush();
    else await pause(doing === 'rest' ? 4 : 0);
  }
  return own;
}

test('a small document is handed over when the page is closed, whatever is being written', async () => {
  await fc.assert(
    fc.asyncProperty(DOINGS, fc.nat(100), async (doings, seed) => {
      const own = await done(true, doings, seed);
      own.keeper.hurry();
      own.close();
      expect(own.lost()).toBe(0);
      expect(own.keeper.atRisk()).toBe(false);
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
