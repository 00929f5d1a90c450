/** Everything that one thing was made from, and everything that was made from it. */

/** Something that is kept, and what it was made from or is made with. */
export interface Kin {
  id: string;
  from: readonly string[];
}

export interface Family<K extends Kin> {
  /** Forebears, the thing itself and what descends from it, in the order they were given in. */
  members: K[];
  links: { from: string; to: string }[];
}

/** What isn't among `all` is left out; things that name each other in a ring are met once. */
export function familyOf<K extends Kin>(all: readonly K[], id: string): Family<K> {
  const known = new Map(all.map((kin) => [kin.id, kin]));
  const made = new Map<string, string[]>();
  for (const kin of all) for (const from of kin.from) made.set(from, [...(made.get(from) ?? []), kin.id]);
  const above = reached(id, (at) => known.get(at)?.from ?? []);
  const below = reached(id, (at) => made.get(at) ?? []);
  const members = all.filter((kin) => above.has(kin.id) || below.has(kin.id));
  // Between two forebears, or two that descend from it: cousins aren't joined.
  const joined = (a: string, b: string): boolean => (above.has(a) && above.has(b)) || (below.has(a) && below.has(b));
  const links = members.flatMap((kin) =>
    [...new Set(kin.from)]
      .filter((from) => known.has(from) && joined(from, kin.id))
      .map((from) => ({ from, to: kin.id })),
  );
  return { members, links };
}

function reached(id: string, next: (id: string) => readonly string[]): Set<string> {
  const seen = new Set([id]);
  for (const at of seen) for (const one of next(at)) seen.add(one);
  return seen;
}

/** Each column in an order that crosses little: by the middle of what its things are linked to before them. */
export function inRows<K extends Kin>(columns: readonly (readonly K[])[]): K[][] {
  const rows = new Map<string, number>();
  return columns.map((column) => {
    const middle = (kin: K): number => {
      const at = kin.from.map((from) => rows.get(from)).filter((row) => row !== undefined);
      return at.length ? at.reduce((sum, row) => sum + row, 0) / at.length : Infinity;
    };
    const placed = column
      .map((kin, i) => ({ kin, i, at: middle(kin) }))
      .sort((a, b) => (a.at === b.at ? a.i - b.i : a.at - b.at))
      .map(({ kin }) => kin);
    for (const [row, { id }] of placed.entries()) rows.set(id, row / placed.length);
    return placed;
  });
}
