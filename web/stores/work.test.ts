import { createPinia, setActivePinia } from 'pinia';
import { secondsLeft, useWork } from './work';

beforeEach(() => setActivePinia(createPinia()));

test('work is listed while it runs, with its share, and gone when it has ended or failed', async () => {
  const work = useWork();
  expect(work.share).toBeNull();
  let go: () => void = () => undefined;
  const done = work.run('Casting', 'a', async ({ report }) => {
    report(0.5);
    await new Promise<void>((yes) => (go = yes));
    report(2);
    return 7;
  });
  expect(work.running.map((w) => [w.what, w.share])).toEqual([['Casting', 0.5]]);
  const other = work.run('Baking', 'b', () => Promise.reject(new Error('away')));
  await expect(other).rejects.toThrow('away');
  expect(work.share).toBe(0.5);
  go();
  expect(await done).toBe(7);
  expect(work.running).toEqual([]);
});

test('Cancel stops the part that runs now, also when it was pressed before that part began', async () => {
  const work = useWork();
  const stopped: string[] = [];
  const done = work.run('Casting', 'a', async (hand) => {
    hand.onCancel(() => stopped.push('first'));
    await Promise.resolve();
    hand.onCancel(() => stopped.push('second'));
    return hand.cancelled;
  });
  work.running[0].cancel();
  expect(await done).toBe(true);
  expect(stopped).toEqual(['first', 'second']);
});

test('the time that is left follows from the time that went', () => {
  expect(secondsLeft({ share: 0.25, began: 0 }, 10_000)).toBeCloseTo(30, 9);
  expect(secondsLeft({ share: 0.01, began: 0 }, 10_000)).toBeNull();
  expect(secondsLeft({ share: 0.5, began: 0 }, 100)).toBeNull();
});
