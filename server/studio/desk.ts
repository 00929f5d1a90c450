/** What jobs work with: stored bytes, and what was read last, since jobs on one thing come in runs. */
import type { AlphaForm } from '#core/brush';
import type { LetterFont } from '#core/lettering';
import type { Blobs } from './blobs';
import type { Decoded } from './decode';

export interface Desk {
  blobs: Blobs;
  recent: Recently;
}

export interface Recently {
  /** A brush is saved again and again while its alpha stays. */
  forms: Recent<AlphaForm>;
  /** Windows of a picture come in runs. */
  pictures: Recent<Decoded>;
  fonts: Recent<LetterFont>;
}

export function newRecently(): Recently {
  return { forms: new Recent(2), pictures: new Recent(1), fonts: new Recent(32) };
}

/** The last `most` things that were made, by their keys; what failed is made again when it is next asked for. */
export class Recent<T> {
  private readonly known = new Map<string, Promise<T>>();

  constructor(private readonly most: number) {}

  of(key: string, make: () => Promise<T>): Promise<T> {
    const made = this.known.get(key) ?? make();
    this.known.delete(key);
    this.known.set(key, made);
    made.catch(() => {
      if (this.known.get(key) === made) this.known.delete(key);
    });
    if (this.known.size > this.most) this.known.delete(this.known.keys().next().value!);
    return made;
  }
}
