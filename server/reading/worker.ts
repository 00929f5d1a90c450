/** The thread that reads large JSON. It may be ended at any time. */
import { parentPort } from 'node:worker_threads';
import { asProblem } from '../problem';
import type { Judged } from './judged';
import type { FromReader, ToReader } from './messages';
import { read } from './read';

parentPort!.on('message', ({ wanted, bytes }: ToReader) => {
  let answer: FromReader;
  try {
    answer = { value: withSpare(read(wanted, bytes)) };
  } catch (error) {
    const { status, code, message, details } = asProblem(error);
    answer = { problem: { status, code, message, details } };
  }
  parentPort!.postMessage(answer, buffersOf(answer));
});

function withSpare(reading: unknown): unknown {
  const { text } = reading as Partial<Judged>;
  return text ? ({ ...(reading as Judged), spare: text.slice() } satisfies Judged) : reading;
}

/** Of the texts that were made: they go to the server without being copied. */
function buffersOf(answer: FromReader): ArrayBuffer[] {
  if (!('value' in answer)) return [];
  const { value } = answer;
  const { text, spare } = value as Partial<Judged>;
  return [value, text, spare].flatMap((of) => (of instanceof Uint8Array ? [of.buffer as ArrayBuffer] : []));
}
