/** Fonts of one's own. */
import { z } from 'zod';
import { upload, type UploadHand } from './upload';

const FontFile = z.object({ blob: z.string(), name: z.string() });

/** Keeps a font; one that can't be read is refused with a sentence. Throws UploadCancelled. */
export async function postFont(file: File, hand: UploadHand): Promise<z.infer<typeof FontFile>> {
  const name = encodeURIComponent(file.name.slice(0, 120) || 'The font');
  return FontFile.parse(await (await upload(`/fonts?name=${name}`, file, hand)).json());
}
