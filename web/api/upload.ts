/** Files on their way to the server: how much of them has gone is told, and they can be stopped. */
import { answered, request, ServerAway } from './client';

/** Who follows a file. */
export interface UploadHand {
  report(share: number, what: string): void;
  /** Takes what stops it. */
  onCancel(stop: () => void): void;
}

/** It was stopped before the server had answered. */
export class UploadCancelled extends Error {
  constructor() {
    super('Sending it was cancelled.');
  }
}

/** A share of the whole; the rest is what the server does with it. */
const SENT = 0.6;

/** Sends a file, and answers what the server does. Throws what `request` throws, and UploadCancelled. */
export async function upload(path: string, file: Blob, hand: UploadHand): Promise<Response> {
  // A process without pages has none; there it is sent as anything else.
  if (typeof XMLHttpRequest === 'undefined') return request(path, { method: 'POST', body: file });
  return answered(await sent(path, file, hand));
}

/** Fetch doesn’t tell how far a body has gone. */
function sent(path: string, file: Blob, hand: UploadHand): Promise<Response> {
  const going = new XMLHttpRequest();
  return new Promise((done, fail) => {
    going.upload.addEventListener('progress', ({ loaded, total }) =>
      hand.report((SENT * loaded) / Math.max(1, total), 'Sending'),
    );
    going.upload.addEventListener('load', () => hand.report(SENT, 'Reading'));
    going.addEventListener('load', () => done(new Response(going.responseText, { status: going.status })));
    going.addEventListener('error', () => fail(new ServerAway()));
    going.addEventListener('abort', () => fail(new UploadCancelled()));
    going.open('POST', `/api${path}`);
    going.send(file);
    // Cancelled before, it is stopped at once.
    hand.onCancel(() => going.abort());
  });
}
