/** A name like the wanted one that none of the taken has, capitals or not. */
export function freeNameAmong(taken: Iterable<string>, wanted: string): string {
  const lower = new Set(Array.from(taken, (name) => name.toLowerCase()));
  if (!lower.has(wanted.toLowerCase())) return wanted;
  for (let n = 2; ; n++) if (!lower.has(`${wanted} ${n}`.toLowerCase())) return `${wanted} ${n}`;
}
