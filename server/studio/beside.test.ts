import fc from 'fast-check';
import { beside } from './beside';

test('in whatever order they end: results in their order, never more at once than may be, none begun after a failure', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.scheduler(),
      fc.array(fc.record({ weight: fc.integer({ min: 1, max: 6 }), fails: fc.boolean() }), { maxLength: 9 }),
      async (s, all) => {
        let held = 0;
        let failed = false;
        const begun: number[] = [];
        const going = beside([...all.keys()], { most: 5, weight: (i) => all[i].weight }, async (i) => {
          expect(failed).toBe(false);
          held += all[i].weight;
          expect(held <= 5 || held === all[i].weight).toBe(true);
          begun.push(i);
          await s.schedule(Promise.resolve());
          held -= all[i].weight;
          if (!all[i].fails) return i;
          failed = true;
          throw new Error(`${i}`);
        });
        const [done] = await Promise.all([going, s.waitFor(going)]);
        expect(held).toBe(0);
        expect(begun).toEqual([...all.keys()].slice(0, begun.length));
        expect(done.map((each, i) => (each.status === 'fulfilled' ? each.value : i))).toEqual(begun);
        if (!all.some(({ fails }) => fails)) expect(done).toHaveLength(all.length);
      },
    ),
    { numRuns: 100 },
  );
});
