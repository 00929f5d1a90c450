/** What a worker that draws with an alpha needs of it: its picture, and its colours where it has some. */
import type { AlphaColours, AlphaKind } from '#core/brush';
import type { AlphaHead } from '#core/stored';
import { getBlob } from './client';

export interface AlphaBytes {
  kind: AlphaKind;
  bytes: ArrayBuffer;
  colours: AlphaColours | null;
}

export async function alphaBytes({ format, size, relief, blob, lineage }: AlphaHead): Promise<AlphaBytes> {
  const own = lineage.colours;
  const [bytes, rgba] = await Promise.all([getBlob(blob), own && getBlob(own.blob)]);
  return {
    kind: { format, size, relief },
    bytes,
    colours: own && rgba ? { size: own.size, rgba: new Uint8Array(rgba) } : null,
  };
}

/** What of it is given away when it is sent. */
export function transfersOf(alpha: AlphaBytes | null): ArrayBuffer[] {
  return alpha ? [alpha.bytes, ...(alpha.colours ? [alpha.colours.rgba.buffer as ArrayBuffer] : [])] : [];
}
