/** Bytes made smaller for keeping, by the browser’s own streams; what grows beyond its limit is given up. */

export function gzip(bytes: ArrayBuffer): Promise<ArrayBuffer> {
  return new Response(new Blob([bytes]).stream().pipeThrough(new CompressionStream('gzip'))).arrayBuffer();
}

/** Throws a sentence where it isn’t gzip, or is more than `most` bytes. */
export async function gunzip(bytes: ArrayBuffer, most: number): Promise<ArrayBuffer> {
  const parts: Uint8Array<ArrayBuffer>[] = [];
  let length = 0;
  const reader = new Blob([bytes]).stream().pipeThrough(new DecompressionStream('gzip')).getReader();
  for (;;) {
    const { done, value } = await reader.read().catch(() => {
      throw new Error('It is broken, or no gzip.');
    });
    if (done) break;
    length += value.byteLength;
    if (length > most) {
      void reader.cancel();
      throw new Error(`It holds more than the ${most} bytes that it may.`);
    }
    parts.push(value as Uint8Array<ArrayBuffer>);
  }
  return new Blob(parts).arrayBuffer();
}
