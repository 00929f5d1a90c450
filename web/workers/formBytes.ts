/** Which alphas the sculpting worker knows, and the bytes of those that are on their way to it. */
import type { AlphaHead } from '#core/stored';
import { getBlob } from '../api/client';

/** The worker's alphas may take so many bytes before those that no brush needs are let go. */
const MOST_BYTES = 256 * 2 ** 20;

export class FormBytes {
  /** By id; the ones used last stand at the end. */
  private readonly known = new Map<string, { key: string; bytes: number }>();

  /** Begins to fetch what the worker doesn't have; null where it has it. */
  fetch(alpha: AlphaHead): Promise<ArrayBuffer> | null {
    if (this.has(alpha)) return null;
    const bytes = getBlob(alpha.blob);
    bytes.catch(() => undefined);
    return bytes;
  }

  /** What is to be sent now; null where the worker has it meanwhile. */
  async bytes(alpha: AlphaHead, fetched: Promise<ArrayBuffer> | null): Promise<ArrayBuffer | null> {
    if (this.has(alpha)) return null;
    // It was there when this was asked for, and was let go or replaced since.
    return fetched ?? getBlob(alpha.blob);
  }

  sent(alpha: AlphaHead): void {
    this.known.delete(alpha.id);
    this.known.set(alpha.id, { key: keyOf(alpha), bytes: bytesOf(alpha) });
  }

  tooMany(): boolean {
    let sum = 0;
    for (const { bytes } of this.known.values()) sum += bytes;
    return sum > MOST_BYTES;
  }

  /** The ones used last, as many as fit; those of the brush at hand always. */
  newest(): string[] {
    let sum = 0;
    return [...this.known]
      .reverse()
      .filter(([, { bytes }], i) => (sum += bytes) <= MOST_BYTES / 2 || i < 2)
      .map(([id]) => id);
  }

  /** The worker let go of all others. */
  keep(ids: readonly string[]): void {
    for (const id of [...this.known.keys()]) if (!ids.includes(id)) this.known.delete(id);
  }

  private has(alpha: AlphaHead): boolean {
    const known = this.known.get(alpha.id);
    if (known?.key !== keyOf(alpha)) return false;
    this.known.delete(alpha.id);
    this.known.set(alpha.id, known);
    return true;
  }
}

function keyOf({ blob, relief, format, size }: AlphaHead): string {
  return `${blob} ${format} ${size} ${relief}`;
}

/** With its smaller copies, as the worker holds it. */
function bytesOf({ size, format }: AlphaHead): number {
  return Math.ceil(size * size * 4 * (format === 'vector32f' ? 3 : 1) * (4 / 3));
}
