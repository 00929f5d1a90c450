/** A name in two: what may be cut, and its end with the number, or the “copy”, by which it differs from others. */
export function partsOfName(name: string): { stem: string; tail: string } {
  const [, stem, tail] = /^(.*?\S)((?: copy)?(?: \d{1,5})?)$/.exec(name) ?? [];
  return stem && tail ? { stem, tail } : { stem: name, tail: '' };
}
