/** JSON from outside and from the store: the same whether it is read at once or in the thread; in time, or refused. */
import { Readable } from 'node:stream';
import type { Context } from 'koa';
import { newBrush } from '#core/settings';
import type { Problem } from '../problem';
import { read } from './read';
import { Reader } from './reader';

const id = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';
const wanted = { kind: 'save', collection: 'brushes', id } as const;
const body = (value: unknown): Context =>
  ({
    is: (type: string) => type,
    req: Object.assign(Readable.from(parts(typeof value === 'string' ? value : JSON.stringify(value))), {
      headers: {},
    }),
  }) as unknown as Context;
const brush = newBrush(id, 'Read');
/** As a network cuts it. */
const parts = (text: string): Buffer[] => {
  const all = Buffer.from(text);
  return Array.from({ length: Math.ceil(all.length / 9999) }, (_, n) => all.subarray(n * 9999, (n + 1) * 9999));
};
/** Blanks between values change nothing but the size. */
const large = (value: unknown): string => ' '.repeat(100_000) + JSON.stringify(value);

const bytes = (value: unknown): Uint8Array => Buffer.from(large(value));

let reader: Reader;
beforeEach(() => (reader = new Reader()));
afterEach(() => reader.close());

const said = (of: Promise<unknown>): Promise<[number, string]> =>
  of.then(
    () => [0, ''],
    (error: Problem) => [error.status, error.message],
  );

test('a large text is read as a small one is, good or bad', async () => {
  const bodies = [
    { doc: brush, revision: null },
    { doc: { ...brush, version: 99 }, revision: 1 },
    { doc: { ...brush, stroke: 7 }, revision: 1 },
    { doc: brush },
    { doc: { ...brush, id: '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5f' }, revision: 1 },
    { doc: { ...brush, card: { ...brush.card, name: 'Nul\u0000l' } }, revision: 1 },
    [],
  ];
  for (const value of bodies) {
    const [small, thread] = await Promise.allSettled([
      reader.body<'save'>(body(value), wanted),
      reader.body<'save'>(body(large(value)), wanted),
    ]);
    expect([small.status, thread.status]).toEqual(
      value === bodies[0] ? ['fulfilled', 'fulfilled'] : ['rejected', 'rejected'],
    );
    if (small.status === 'fulfilled')
      expect((thread as PromiseFulfilledResult<object>).value).toMatchObject(small.value);
    else {
      const { status, code, message, details } = (thread as PromiseRejectedResult).reason as Problem;
      expect({ status, code, message, details }).toEqual(
        (({ status: s, code: c, message: m, details: d }: Problem) => ({ status: s, code: c, message: m, details: d }))(
          small.reason as Problem,
        ),
      );
    }
  }
});

test('what was read says what is kept: the text, what it names, and its revision', async () => {
  const save = await reader.body<'save'>(body(large({ doc: { ...brush, unknown: 1 }, revision: 3 })), wanted);
  expect(JSON.parse(Buffer.from(save.text).toString())).toEqual(brush);
  expect(save).toMatchObject({
    collection: 'brushes',
    id,
    name: 'Read',
    kind: 'lift',
    revision: 3,
    references: { blobs: [], documents: [] },
    files: [],
  });
  expect(Buffer.from(await reader.stored('brushes', 'Read', bytes(brush))).toString()).toBe(JSON.stringify(brush));
  expect(await said(reader.stored('brushes', 'Read', bytes({ ...brush, version: 99 })))).toEqual([
    422,
    expect.stringMatching(/^“Read” can’t be opened\. .*version 99/),
  ]);
});

test('many at once, large and small: each gets its own answer', async () => {
  const asked = Array.from({ length: 12 }, (_, n) => {
    const doc = { ...brush, card: { ...brush.card, name: `Number ${n}` } };
    const value = { doc: n % 4 === 3 ? { ...doc, touch: 'x' } : doc, revision: null };
    return reader.body<'save'>(body(n % 2 ? large(value) : value), wanted).then(
      (save) => save.name,
      (error: Problem) => error.status,
    );
  });
  expect(await Promise.all(asked)).toEqual(Array.from({ length: 12 }, (_, n) => (n % 4 === 3 ? 422 : `Number ${n}`)));
});

test('one that takes too long is ended and refused; the next is read', async () => {
  const hurried = new Reader({ seconds: 0.01, megabytes: 1500 });
  expect(await said(hurried.body<'save'>(body(large({ doc: brush, revision: null })), wanted))).toEqual([
    422,
    expect.stringContaining('takes more time or memory'),
  ]);
  await hurried.close();
  expect((await reader.body<'save'>(body(large({ doc: brush, revision: null })), wanted)).name).toBe('Read');
});

test('one that takes too much memory is ended and refused; the next is read', async () => {
  const small = new Reader({ seconds: 20, megabytes: 40 });
  const much = `{"doc":[${'[],'.repeat(1_500_000)}[]],"revision":null}`;
  expect(await said(small.body<'save'>(body(much), wanted))).toEqual([
    422,
    expect.stringContaining('takes more time or memory'),
  ]);
  expect((await small.body<'save'>(body(large({ doc: brush, revision: null })), wanted)).name).toBe('Read');
  await small.close();
}, 30_000);

test('closed, it answers whoever waits and whoever asks later', async () => {
  const asked = Array.from({ length: 3 }, () =>
    said(reader.body<'save'>(body(large({ doc: brush, revision: null })), wanted)),
  );
  await new Promise((done) => setTimeout(done, 5));
  await reader.close();
  for (const [, message] of await Promise.all(asked)) expect(message).toMatch(/closing/);
  expect((await said(reader.stored('brushes', 'Read', bytes(brush))))[1]).toMatch(/closing/);
});

test('of many things that are wrong some are listed', () => {
  try {
    read<'holds'>({ kind: 'holds' }, Buffer.from(JSON.stringify({ hashes: Array.from({ length: 4000 }, () => 7) })));
    throw new Error('It was taken.');
  } catch (error) {
    expect((error as Problem).details['issues']).toHaveLength(20);
  }
});
