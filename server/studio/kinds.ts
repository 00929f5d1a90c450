/** What a file is that isn't read here, by its first bytes, so that it is named and not called broken. */
const ASCII = (bytes: Uint8Array, from: number, to: number): string => String.fromCharCode(...bytes.subarray(from, to));

/** By the file's own signature; null for what isn't known. */
export function unreadKind(bytes: Uint8Array): string | null {
  const head = ASCII(bytes, 0, 12);
  if (head.startsWith('8BPS')) return 'a layered picture (PSD)';
  if (head.startsWith('#?RADIANCE') || head.startsWith('#?RGBE')) return 'a Radiance HDR picture';
  if (/^P[1-6]\s/.test(head)) return 'a portable map (PBM, PGM or PPM)';
  if (/^P[Ff]\s/.test(head)) return 'a portable float map (PFM)';
  if (head.startsWith('BM')) return 'a BMP picture';
  if (head.startsWith('GIF8')) return 'a GIF picture';
  if (head.slice(4, 8) === 'jP  ' || (bytes[0] === 0xff && bytes[1] === 0x4f && bytes[2] === 0xff))
    return 'a JPEG 2000 picture';
  if (head.slice(4, 8) === 'ftyp') return 'a HEIF or AVIF picture, or a film';
  if (head.startsWith('DDS ')) return 'a DDS texture';
  if (head.startsWith('%PDF')) return 'a PDF document';
  return null;
}
