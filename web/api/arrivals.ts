/** Pictures that arrive, whatever they turn out to be. */
import { z } from 'zod';
import { ARRIVALS } from '#core/arrive';
import { SheetFile } from './client';
import { upload, type UploadHand } from './upload';

const Arrived = SheetFile.extend({ guess: z.object({ kind: z.enum(ARRIVALS), why: z.string() }) });
export type Arrived = z.infer<typeof Arrived>;

/** Keeps a picture, and answers what it is and what it is guessed to be. Throws UploadCancelled. */
export async function postArrival(file: File, hand: UploadHand): Promise<Arrived> {
  const name = encodeURIComponent(file.name.slice(0, 200) || 'The picture');
  return Arrived.parse(await (await upload(`/arrivals?name=${name}`, file, hand)).json());
}
