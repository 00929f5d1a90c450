/**
 * One scanner on the network: asked what it can do, and for a page. Every wait has an end; redirects aren’t followed.
 */
import { setTimeout as wait } from 'node:timers/promises';
import { Problem } from '../problem';
import { Nonsense, readCapabilities, settingsXml, type Capabilities, type ScanWish } from './escl';

export interface Patience {
  /** For an answer to begin, ms. */
  answerMs: number;
  /** For a page to begin, while the scanner says that it is busy. */
  pageMs: number;
  /** Between two chunks of a page. */
  chunkMs: number;
  /** For all of a page, from its first chunk: one that trickles has an end too. */
  wholeMs: number;
}
export const PATIENCE: Patience = { answerMs: 10_000, pageMs: 180_000, chunkMs: 10_000, wholeMs: 900_000 };
const BUSY_PAUSE_MS = 500;
const MOST_XML = 1 << 20;

export async function capabilitiesOf(root: URL, patience: Patience = PATIENCE): Promise<Capabilities> {
  const answer = await ask(root, 'ScannerCapabilities', {}, patience.answerMs);
  if (!answer.ok) throw strange(root, `it answers ${answer.status} when asked what it can do`);
  try {
    return readCapabilities(await smallText(answer, patience.answerMs));
  } catch (error) {
    if (error instanceof Nonsense) throw strange(root, lower(error.message));
    throw away(root);
  }
}

export interface PageStream {
  /** Of all bytes; null where the scanner doesn’t say. */
  length: number | null;
  chunks: AsyncIterable<Uint8Array>;
}

/** Begins a scan and answers its page; `signal` gives it up, here and at the scanner. */
export async function scanPage(
  root: URL,
  wish: ScanWish,
  signal: AbortSignal,
  patience: Patience = PATIENCE,
): Promise<PageStream> {
  const begun = await ask(
    root,
    'ScanJobs',
    {
      method: 'POST',
      headers: { 'Content-Type': 'text/xml' },
      body: settingsXml(wish),
      signal,
    },
    patience.answerMs,
  );
  if (begun.status === 503 || begun.status === 423)
    throw new Problem(503, 'scanner-busy', `The scanner at ${root.host} is busy. Scan again when it has finished.`);
  const job = begun.status === 201 ? jobUrl(root, begun.headers.get('location')) : null;
  if (!job) throw strange(root, `it answers ${begun.status} when asked for a scan`);
  const giveUp = (): void => void fetch(job, { method: 'DELETE', redirect: 'error' }).catch(() => undefined);
  signal.addEventListener('abort', giveUp, { once: true });
  const until = Date.now() + patience.pageMs;
  for (;;) {
    const answer = await ask(
      root,
      `${job.pathname.slice(root.pathname.length + 1)}/NextDocument`,
      { signal },
      patience.pageMs,
    ).catch((error: unknown) => {
      // It took the order, so it was there.
      throw signal.aborted ? error : stopped(root, 0);
    });
    if (answer.status === 503 && Date.now() < until) {
      await wait(BUSY_PAUSE_MS, null, { signal }).catch(() => {
        throw cancelled();
      });
      continue;
    }
    if (!answer.ok || !answer.body) {
      giveUp();
      throw strange(
        root,
        answer.status === 404
          ? 'it ended the scan without a page'
          : `it answers ${answer.status} when asked for the page`,
      );
    }
    const length = Number(answer.headers.get('content-length') ?? NaN);
    return {
      length: Number.isInteger(length) && length > 0 ? length : null,
      chunks: chunksOf(root, answer.body, signal, patience),
    };
  }
}

async function* chunksOf(
  root: URL,
  body: ReadableStream<Uint8Array>,
  signal: AbortSignal,
  { chunkMs, wholeMs }: Patience,
): AsyncIterable<Uint8Array> {
  const reader = body.getReader();
  const until = Date.now() + wholeMs;
  let bytes = 0;
  try {
    for (;;) {
      const chunk = await inTime(reader.read(), Math.min(chunkMs, until - Date.now()), signal);
      if (signal.aborted) throw cancelled();
      if (chunk === LATE) throw stopped(root, bytes);
      if (chunk.done) return;
      bytes += chunk.value.length;
      yield chunk.value;
    }
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw signal.aborted ? cancelled() : stopped(root, bytes);
  } finally {
    // A scanner that hangs doesn't answer this either.
    void reader.cancel().catch(() => undefined);
  }
}

const LATE = Symbol('late');

/** What comes within `ms`; LATE when it doesn't, or when it is given up, at once. */
async function inTime<T>(work: Promise<T>, ms: number, signal?: AbortSignal): Promise<T | typeof LATE> {
  if (ms <= 0 || signal?.aborted) return LATE;
  // Whoever doesn't wait for it any more doesn't hear of its end.
  work.catch(() => undefined);
  return new Promise((done, fail) => {
    const late = (): void => done(LATE);
    const timer = setTimeout(late, ms);
    timer.unref();
    signal?.addEventListener('abort', late, { once: true });
    work.then(done, fail).finally(() => {
      clearTimeout(timer);
      signal?.removeEventListener('abort', late);
    });
  });
}

/** `answerMs` is for the answer to begin; what it brings may take longer. */
async function ask(root: URL, path: string, init: RequestInit, answerMs: number): Promise<Response> {
  const end = new AbortController();
  const timer = setTimeout(() => end.abort(), answerMs);
  // Held on to by the listener: a signal made of others may be cleared away before they are heard.
  init.signal?.addEventListener('abort', () => end.abort(), { once: true });
  if (init.signal?.aborted) end.abort();
  try {
    return await fetch(new URL(`${root.pathname}/${path}`, root), { ...init, signal: end.signal, redirect: 'error' });
  } catch {
    throw init.signal?.aborted ? cancelled() : away(root);
  } finally {
    clearTimeout(timer);
  }
}

/** Where the scan is, at the same scanner and under its service; null for anything else. */
function jobUrl(root: URL, location: string | null): URL | null {
  if (!location || !URL.canParse(location, root)) return null;
  const url = new URL(location, root);
  url.pathname = url.pathname.replace(/\/+$/, '');
  return url.host === root.host && url.pathname.startsWith(`${root.pathname}/`) ? url : null;
}

/** All of it within `ms`. */
async function smallText(answer: Response, ms: number): Promise<string> {
  const reader = answer.body?.getReader();
  const chunks: Uint8Array[] = [];
  const until = Date.now() + ms;
  let bytes = 0;
  for (;;) {
    const chunk = reader && (await inTime(reader.read(), until - Date.now()));
    if (chunk === LATE) {
      void reader?.cancel().catch(() => undefined);
      throw new Error('It goes on too long.');
    }
    if (!chunk || chunk.done) return new TextDecoder().decode(Buffer.concat(chunks));
    bytes += chunk.value.length;
    if (bytes > MOST_XML) throw new Nonsense('It says more than any scanner has to say.');
    chunks.push(chunk.value);
  }
}

export function cancelled(): Problem {
  return new Problem(499, 'scan-cancelled', 'The scan was cancelled.');
}

function away(root: URL): Problem {
  return new Problem(502, 'scanner-away', `No scanner answers at ${root.host}. Is it on, and is its address right?`);
}

function stopped(root: URL, bytes: number): Problem {
  return new Problem(
    502,
    'scanner-stopped',
    `The scanner at ${root.host} stopped in mid-scan, after ${(bytes / 2 ** 20).toFixed(1)} MB. Nothing was kept. Scan again.`,
  );
}

function strange(root: URL, what: string): Problem {
  return new Problem(
    502,
    'scanner-strange',
    `What is at ${root.host} can’t be used as a scanner: ${what.replace(/\.$/, '')}.`,
  );
}

function lower(sentence: string): string {
  return sentence.charAt(0).toLowerCase() + sentence.slice(1);
}
