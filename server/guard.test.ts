import type { Context } from 'koa';
import { guard } from './guard';
import { Problem } from './problem';
import { routes, type RouteOptions } from './routes';

/** Stands for every part that routes are made over; none is asked. */
const anything: unknown = new Proxy(() => undefined, { get: () => anything });
const router = routes(anything as RouteOptions);
const every = router.stack.flatMap(({ path, methods }) =>
  methods.map((method) => ({ method, path: String(path).replace(/:\w+/g, '00000000-0000-4000-8000-000000000001') })),
);

/** Null when the guard lets it pass. */
async function refusal(method: string, path: string, headers: Record<string, string>): Promise<number | null> {
  try {
    await guard()(
      { method, path, request: { headers: { host: 'localhost:4870', ...headers } } } as unknown as Context,
      () => Promise.resolve(),
    );
    return null;
  } catch (error) {
    return error instanceof Problem ? error.status : 0;
  }
}

const SPELLINGS: [string, (path: string) => string][] = [
  ['as it is', (path) => path],
  ['in capitals', (path) => path.replace('/api', '/API')],
  ['mixed', (path) => path.replace('/api', '/Api')],
  ['encoded', (path) => path.replace('/api', '/%61pI')],
  ['after two strokes', (path) => `/${path}`],
];

test.each(SPELLINGS)('no route answers a foreign page, the address spelt %s', async (_, spelt) => {
  expect(every.length).toBeGreaterThan(60);
  for (const { method, path } of every)
    for (const headers of [{ origin: 'http://evil.example' }, { 'sec-fetch-site': 'cross-site' }])
      expect([method, path, await refusal(method, spelt(path), headers as Record<string, string>)]).toEqual([
        method,
        path,
        403,
      ]);
});

test('routes are spelt exactly', () => {
  expect(router.match('/api/health', 'GET').route).toBe(true);
  expect(router.match('/API/health', 'GET').route).toBe(false);
});

test('this machine is called by its name in any letters, and no other is', async () => {
  const own = { host: 'LocalHost:4870', origin: 'http://localhost:4870' };
  expect(await refusal('GET', '/api/health', own)).toBeNull();
  expect(await refusal('GET', '/api/health', { host: 'localhost.evil.example' })).toBe(403);
});
