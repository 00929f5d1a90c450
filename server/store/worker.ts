/** The thread that owns the database, so that no query, however long, keeps the server from answering. */
import { parentPort, workerData } from 'node:worker_threads';
import type { PGlite } from '@electric-sql/pglite';
import type { Answer, OpenOrder, Order } from './messages';
import { openSynced } from './synced';

const { path } = workerData as OpenOrder;
const opened: Promise<PGlite> = openSynced(path);
opened.then(() => parentPort!.postMessage({ id: 0 } satisfies Answer), (error: Error) => parentPort!.postMessage({ id: 0, error: { message: error.message, stack: error.stack } } satisfies Answer));

async function carryOut(order: Order): Promise<unknown> {
  const db = await opened;
  switch (order.kind) {
    case 'query': return { rows: (await db.query(order.sql, [...order.params])).rows };
    case 'exec': return void (await db.exec(order.sql));
    case 'close': return db.close();
  }
}

parentPort!.on('message', ({ id, order }: { id: number; order: Order }) => {
  carryOut(order).then((value) => {
    const answer: Answer = { id, value };
    parentPort!.postMessage(answer);
    if (order.kind === 'close') parentPort!.close();
  }, (error: Error & { code?: string }) => {
    const { message, code, stack } = error;
    parentPort!.postMessage({ id, error: { message, code, stack } } satisfies Answer);
  });
});
