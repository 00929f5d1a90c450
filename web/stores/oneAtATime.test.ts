import { seeded } from '#core/random';
import { oneAtATime } from './oneAtATime';

test('asked for once it runs at once, and answers what the work answers', async () => {
  const save = oneAtATime(() => Promise.resolve(7));
  expect(await save()).toBe(7);
});

test('what fails is told to those who asked for it, and the next run is as good as the first', async () => {
  let fails = true;
  const save = oneAtATime(() => (fails ? Promise.reject(new Error('away')) : Promise.resolve('stored')));
  const first = save();
  const second = save();
  fails = false;
  await expect(first).rejects.toThrow('away');
  expect(await second).toBe('stored');
  expect(await save()).toBe('stored');
});

test.each([1, 2, 3, 4, 5])(
  'in any order of changes, asking and waiting (seed %d), no two run at once and the last change is stored',
  async (seed) => {
    const random = seeded(seed);
    let value = 0;
    let stored = -1;
    let at = 0;
    let most = 0;
    let runs = 0;
    const save = oneAtATime(async () => {
      most = Math.max(most, ++at);
      runs++;
      const sent = value;
      for (let n = Math.floor(random() * 4); n > 0; n--) await new Promise((done) => setImmediate(done));
      stored = sent;
      at--;
      return sent;
    });
    const asked: Promise<number>[] = [];
    for (let n = 0; n < 60; n++) {
      const which = random();
      if (which < 0.4) value++;
      else if (which < 0.75) {
        const now = value;
        asked.push(
          save().then((sent) => {
            // Whoever asks gets at least what was there when they asked.
            expect(sent).toBeGreaterThanOrEqual(now);
            return sent;
          }),
        );
      } else await new Promise((done) => setImmediate(done));
    }
    await save();
    await Promise.all(asked);
    expect([most, stored]).toEqual([1, value]);
    expect(runs).toBeLessThanOrEqual(asked.length + 1);
  },
);

test('asked for another thing meanwhile, nothing is done to the one that is there then', async () => {
  let open = 'a';
  const saved: string[] = [];
  const save = oneAtATime(
    async () => {
      const mine = open;
      await new Promise((done) => setImmediate(done));
      saved.push(mine);
    },
    () => open,
  );
  const asked = [save(), save()];
  open = 'b';
  await Promise.all(asked);
  expect(saved).toEqual(['a']);
  await save();
  expect(saved).toEqual(['a', 'b']);
});
