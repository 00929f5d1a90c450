import { Recent } from './desk';

test('what was made lately is not made again; what was used longest ago goes first', async () => {
  const recent = new Recent<string>(2);
  const made: string[] = [];
  const ask = (key: string): Promise<string> =>
    recent.of(key, () => {
      made.push(key);
      return Promise.resolve(key.toUpperCase());
    });
  for (const key of ['a', 'b', 'a', 'c', 'a', 'b']) await ask(key);
  expect(made).toEqual(['a', 'b', 'c', 'b']);
  expect(await ask('b')).toBe('B');
});

test('two that ask at once wait for one; what failed is made again', async () => {
  const recent = new Recent<number>(1);
  let calls = 0;
  const failing = (): Promise<number> => {
    calls++;
    return Promise.reject(new Error('away'));
  };
  const both = await Promise.allSettled([recent.of('x', failing), recent.of('x', failing)]);
  expect(both.map((b) => b.status)).toEqual(['rejected', 'rejected']);
  expect(calls).toBe(1);
  expect(await recent.of('x', () => Promise.resolve(7))).toBe(7);
});
