/**
 * The server’s side of the database: orders go to its thread one after the other, a transaction keeps the others out.
 */
import { startThread } from '../../threads';
import { isUtf8, type Answer, type OpenOrder, type Order } from './messages';

export interface Rows<T> {
  rows: T[];
}

export interface Queries {
  /** `bytes` names a column of text that is answered as UTF-8 bytes; a parameter may be `Utf8`. */
  query<T>(sql: string, params?: readonly unknown[], bytes?: string): Promise<Rows<T>>;
  /** Several statements. */
  exec(sql: string): Promise<void>;
}

export interface Transacted extends Queries {
  /** All of it or nothing. Inside, ask `tx` alone. */
  transaction<T>(act: (tx: Queries) => Promise<T>): Promise<T>;
}

export interface Database extends Transacted {
  close(): Promise<void>;
}

export async function openThread(path: string): Promise<Database> {
  const thread = startThread('store', { path } satisfies OpenOrder);
  const pending = new Map<number, { done: (value: unknown) => void; fail: (error: Error) => void }>();
  let ids = 0;
  let last: Promise<unknown> = Promise.resolve();
  let ended: Error | null = null;

  const opened = new Promise<unknown>((done, fail) => pending.set(0, { done, fail }));
  thread.on('message', ({ id, value, error }: Answer) => {
    const own = pending.get(id);
    pending.delete(id);
    if (error) own?.fail(thrown(error));
    else own?.done(value);
  });
  const end = (error: Error): void => {
    ended = error;
    for (const { fail } of pending.values()) fail(error);
    pending.clear();
  };
  thread.on('error', end);
  thread.on('exit', () => end(new Error('The database is closed.')));

  function ask<T>(order: Order): Promise<T> {
    if (ended) return Promise.reject(ended);
    const id = ++ids;
    const answer = new Promise<unknown>((done, fail) => pending.set(id, { done, fail }));
    thread.postMessage(
      { id, order },
      order.kind === 'query' ? order.params.filter(isUtf8).map((p) => p.utf8.buffer as ArrayBuffer) : [],
    );
    return answer as Promise<T>;
  }

  /** Whoever comes has the database to themselves until `act` has ended. */
  function alone<T>(act: () => Promise<T>): Promise<T> {
    const mine = last.then(act);
    last = mine.catch(() => undefined);
    return mine;
  }

  const queries: Queries = {
    query: (sql, params = [], bytes) => ask({ kind: 'query', sql, params, bytes }),
    exec: (sql) => ask({ kind: 'exec', sql }),
  };

  async function transaction<T>(act: (tx: Queries) => Promise<T>): Promise<T> {
    await queries.exec('BEGIN');
    try {
      const value = await act(queries);
      await queries.exec('COMMIT');
      return value;
    } catch (error) {
      await queries.exec('ROLLBACK').catch(() => undefined);
      throw error;
    }
  }

  try {
    await opened;
  } catch (error) {
    await thread.terminate();
    throw error;
  }
  return {
    query: (sql, params, bytes) => alone(() => queries.query(sql, params, bytes)),
    exec: (sql) => alone(() => queries.exec(sql)),
    transaction: (act) => alone(() => transaction(act)),
    close: () =>
      alone(async () => {
        await ask({ kind: 'close' });
        await thread.terminate();
      }),
  };
}

function thrown({ message, code, stack }: NonNullable<Answer['error']>): Error {
  const error = Object.assign(new Error(message), code === undefined ? {} : { code });
  if (stack !== undefined) error.stack = stack;
  return error;
}
