/** Numbers as sentences have them. */

/** Whole, in groups of three: 10 432. */
export function spaced(n: number): string {
  return Math.round(n).toLocaleString('en').replaceAll(',', ' ');
}

/** 1 face, 2 faces, 10 432 vertices. */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${spaced(n)} ${n === 1 ? one : many}`;
}
