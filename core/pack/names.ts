/** Names of many by one pattern. */

export interface Named {
  id: string;
  name: string;
  maker: string;
}

/** What a pattern may hold. */
export const NAME_FIELDS = [
  { field: '{name}', help: 'The name it has' },
  { field: '{n}', help: 'Its number: 1, 2, 3…' },
  { field: '{nn}', help: 'Its number, padded with zeros' },
  { field: '{maker}', help: 'Its maker' },
] as const;

const LONGEST = 80;

/**
 * A name for each, in their order. A pattern without a number gives names that are taken one: “ 2” and so on. `taken`
 * are names of others, capitals or not.
 */
export function namesByPattern(pattern: string, of: readonly Named[], taken: Iterable<string>): string[] {
  const used = new Set(Array.from(taken, (name) => name.toLowerCase()));
  const digits = String(of.length).length;
  return of.map(({ name, maker }, i) => {
    const fields: Record<string, string> = {
      '{name}': name,
      '{n}': String(i + 1),
      '{nn}': String(i + 1).padStart(digits, '0'),
      '{maker}': maker,
    };
    const wanted = pattern
      .replace(/\{(?:name|nn|n|maker)\}/g, (field) => fields[field])
      .replace(/\s+/g, ' ')
      .trim();
    const free = freeOf(wanted, used);
    used.add(free.toLowerCase());
    return free;
  });
}

function freeOf(wanted: string, used: ReadonlySet<string>): string {
  const whole = wanted.slice(0, LONGEST).trim();
  if (whole === '' || !used.has(whole.toLowerCase())) return whole;
  for (let n = 2; ; n++) {
    const tail = ` ${n}`;
    const name = `${whole.slice(0, LONGEST - tail.length).trim()}${tail}`;
    if (!used.has(name.toLowerCase())) return name;
  }
}
