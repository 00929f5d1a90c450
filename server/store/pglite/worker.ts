/** The thread that owns the database, so that no query, however long, keeps the server from answering. */
import { parentPort, workerData } from 'node:worker_threads';
import type { PGlite } from '@electric-sql/pglite';
import { isUtf8, type Answer, type OpenOrder, type Order } from './messages';
import { openSynced } from './synced';

const { path } = workerData as OpenOrder;
const opened: Promise<PGlite> = openSynced(path);
opened.then(
  () => parentPort!.postMessage({ id: 0 } satisfies Answer),
  (error: Error) =>
    parentPort!.postMessage({ id: 0, error: { message: error.message, stack: error.stack } } satisfies Answer),
);

const decoder = new TextDecoder();
const encoder = new TextEncoder();

interface Rows {
  rows: Record<string, unknown>[];
}

function buffersOf({ rows }: Rows, column: string): ArrayBuffer[] {
  return rows.map((row) => (row[column] as Uint8Array).buffer as ArrayBuffer);
}

async function carryOut(order: Order): Promise<unknown> {
  const db = await opened;
  switch (order.kind) {
    case 'query': {
      const { rows } = await db.query<Record<string, unknown>>(
        order.sql,
        order.params.map((p) => (isUtf8(p) ? decoder.decode(p.utf8) : p)),
      );
      if (order.bytes !== undefined)
        for (const row of rows) row[order.bytes] = encoder.encode(row[order.bytes] as string);
      return { rows };
    }
    case 'exec':
      return void (await db.exec(order.sql));
    case 'close':
      return db.close();
  }
}

parentPort!.on('message', ({ id, order }: { id: number; order: Order }) => {
  carryOut(order).then(
    (value) => {
      const answer: Answer = { id, value };
      parentPort!.postMessage(
        answer,
        order.kind === 'query' && order.bytes !== undefined ? buffersOf(value as Rows, order.bytes) : [],
      );
      if (order.kind === 'close') parentPort!.close();
    },
    (error: Error & { code?: string }) => {
      const { message, code, stack } = error;
      parentPort!.postMessage({ id, error: { message, code, stack } } satisfies Answer);
    },
  );
});
