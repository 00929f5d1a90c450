/**
 * Reads JSON without keeping the server from answering: small texts at once, large ones in a thread, one after the
 * other, each within a limit of time and memory. One that goes beyond is ended with its thread and refused with a
 * sentence.
 */
import { once } from 'node:events';
import type { Worker } from 'node:worker_threads';
import type { Context } from 'koa';
import type { Collection } from '#core/stored';
import { closing, Problem } from '../problem';
import { startThread } from '../threads';
import { jsonOf } from './body';
import type { FromReader, ToReader } from './messages';
import { read, type Readings, type Wanted } from './read';

/** Read here: it takes less time than going to the thread and back. */
const SMALL_BYTES = 64 * 1024;
const LIMITS = { seconds: 10, megabytes: 1500 };
/** A thread that has nothing to do for so long is let go, with the memory it took. */
const IDLE_MS = 30_000;

export class Reader {
  private thread: Worker | null = null;
  private last: Promise<unknown> = Promise.resolve();
  private idle: NodeJS.Timeout | undefined;
  private readonly closing = new AbortController();

  constructor(private readonly limits = LIMITS) {}

  /** The body of a request. */
  async body<K extends Wanted['kind']>(ctx: Context, wanted: Extract<Wanted, { kind: K }>): Promise<Readings[K]> {
    return this.read(wanted, await jsonOf(ctx));
  }

  /** A document from the store, in the newest version, as JSON. */
  async stored(collection: Collection, name: string, text: Uint8Array): Promise<Uint8Array> {
    return this.read({ kind: 'stored', collection, name }, text);
  }

  async close(): Promise<void> {
    this.closing.abort();
    await this.last;
    await this.letGo();
  }

  private read<K extends Wanted['kind']>(
    wanted: Extract<Wanted, { kind: K }>,
    text: Uint8Array,
  ): Promise<Readings[K]> | Readings[K] {
    if (text.length <= SMALL_BYTES) return read<K>(wanted, text);
    const mine = this.last.then(() => this.inThread({ wanted, bytes: text }));
    this.last = mine.catch(() => undefined);
    return mine as Promise<Readings[K]>;
  }

  private async inThread(order: ToReader): Promise<unknown> {
    const { signal } = this.closing;
    if (signal.aborted) throw closing();
    clearTimeout(this.idle);
    const answer = await this.ask(order).catch(async () => {
      await this.letGo();
      throw signal.aborted
        ? closing()
        : new Problem(
            422,
            'invalid',
            'The document takes more time or memory to read than anything that is kept may. Nothing was changed.',
          );
    });
    this.idle = setTimeout(() => void this.letGo(), IDLE_MS);
    this.idle.unref();
    if ('value' in answer) return answer.value;
    const { status, code, message, details } = answer.problem;
    throw new Problem(status, code, message, details);
  }

  /** Throws when the thread took too long or died of it, or the server closes. */
  private async ask(order: ToReader): Promise<FromReader> {
    const thread = (this.thread ??= startReader(this.limits.megabytes));
    const answered = once(thread, 'message', {
      signal: AbortSignal.any([AbortSignal.timeout(this.limits.seconds * 1000), this.closing.signal]),
    }) as Promise<[FromReader]>;
    thread.postMessage(order, [order.bytes.buffer as ArrayBuffer]);
    const [answer] = await answered;
    return answer;
  }

  private async letGo(): Promise<void> {
    const { thread } = this;
    this.thread = null;
    clearTimeout(this.idle);
    await thread?.terminate();
  }
}

function startReader(megabytes: number): Worker {
  const thread = startThread('reading', {}, { maxOldGenerationSizeMb: megabytes });
  // Whoever waits for it hears of it; one that nobody waits for is missed by nobody.
  thread.on('error', () => undefined);
  thread.unref();
  return thread;
}
