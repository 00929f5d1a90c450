/**
 * How what is in a pack file meets what is kept here: what is new, what is here already under whatever name, and what
 * is here but other. From what is then chosen follows what is taken, under which id and name.
 */
import type { Pack } from '#core/settings';
import { keyed, type Thing } from './judge';
import type { Travelling } from './manifest';

export interface Existing {
  collection: Travelling;
  id: string;
  name: string;
  /** As `sameness` says. */
  key: string;
  revision: number;
  /** A base brush stays as it is. */
  base: boolean;
}

export interface Here {
  things: readonly Existing[];
  /** Ids that can’t be used again: of what lies in the trash. */
  gone: ReadonlySet<string>;
}

/** `here`: the same thing is kept. `other`: something else is kept under its id. */
export type Meets = 'new' | 'here' | 'other';
export type Choice = 'take' | 'replace' | 'leave';

export interface Meeting {
  thing: Thing;
  meets: Meets;
  /** What is kept here. */
  existing: Existing | null;
  /** The name it has once it is taken as one of its own. */
  name: string;
}

export interface Taken {
  thing: Thing;
  id: string;
  name: string;
  /** Of what it replaces. */
  revision: number | null;
}

export interface Taking {
  taken: Taken[];
  /** What each thing of the pack is here, by `keyed`. */
  ids: Map<string, string>;
}

const LONGEST = 80;

export function meet(things: readonly Thing[], here: Here): Meeting[] {
  const byId = new Map(here.things.map((existing) => [keyed(existing), existing]));
  const byKey = new Map(here.things.map((existing) => [`${existing.collection} ${existing.key}`, existing]));
  const names = new Map<string, Set<string>>();
  for (const { collection, name } of here.things) usedIn(names, collection).add(name.toLowerCase());
  const met = things.map((thing): Omit<Meeting, 'name'> => {
    const own = byId.get(keyed(thing)) ?? null;
    const same = own?.key === thing.key ? own : (byKey.get(`${thing.collection} ${thing.key}`) ?? null);
    return { thing, meets: same ? 'here' : own ? 'other' : 'new', existing: same ?? own };
  });
  const named = (of: Omit<Meeting, 'name'>): string => {
    const used = usedIn(names, of.thing.collection);
    const name = freeName(of.thing.name, used);
    used.add(name.toLowerCase());
    return name;
  };
  // What is here already is seldom taken once more: it doesn’t take a name from what is new.
  const found = new Map<Thing, string>();
  for (const late of [false, true])
    for (const one of met) if ((one.meets === 'here') === late) found.set(one.thing, named(one));
  return met.map((one) => ({ ...one, name: found.get(one.thing)! }));
}

function usedIn(names: Map<string, Set<string>>, collection: Travelling): Set<string> {
  const found = names.get(collection) ?? new Set();
  names.set(collection, found);
  return found;
}

function freeName(wanted: string, used: ReadonlySet<string>): string {
  if (!used.has(wanted.toLowerCase())) return wanted;
  for (let n = 2; ; n++) {
    const tail = ` ${n}`;
    const name = `${wanted.slice(0, LONGEST - tail.length).trim()}${tail}`;
    if (!used.has(name.toLowerCase())) return name;
  }
}

/** What happens to it where nothing was chosen. */
export function usualChoice({ meets }: Pick<Meeting, 'meets'>): Choice {
  return meets === 'here' ? 'leave' : 'take';
}

/**
 * What is taken. Brushes and palettes are chosen; what they name comes along, once, unless it is here already.
 * `newId` is asked for an id where its own can’t be used.
 */
export function taking(
  meetings: readonly Meeting[],
  choices: Readonly<Record<string, Choice>>,
  here: Here,
  newId: () => string,
): Taking {
  const byKey = new Map(meetings.map((meeting) => [keyed(meeting.thing), meeting]));
  const taken = new Map<string, Taken>();
  const ids = new Map<string, string>();
  const used = new Set([...here.things.map(({ id }) => id), ...here.gone]);

  function take(meeting: Meeting, choice: Choice): void {
    const { thing, meets, existing, name } = meeting;
    const key = keyed(thing);
    if (ids.has(key)) return;
    if (meets === 'here' && choice !== 'take') {
      ids.set(key, existing!.id);
      return;
    }
    const replaces = choice === 'replace' && meets === 'other' && existing && !existing.base;
    const id = replaces ? existing.id : used.has(thing.id) ? newId() : thing.id;
    used.add(id);
    ids.set(key, id);
    for (const named of thing.names) {
      const other = byKey.get(keyed(named));
      if (other) take(other, usualChoice(other));
    }
    taken.set(key, { thing, id, name: replaces ? existing.name : name, revision: replaces ? existing.revision : null });
  }

  for (const meeting of meetings) {
    const { collection } = meeting.thing;
    if (collection !== 'brushes' && collection !== 'palettes') continue;
    const choice = choices[keyed(meeting.thing)] ?? usualChoice(meeting);
    if (choice === 'leave' && meeting.meets !== 'here') continue;
    take(meeting, choice);
  }
  return { taken: [...taken.values()], ids };
}

/**
 * The pack with the brushes that are here now. Where the pack is here already they go into its groups of the same name,
 * and those it has stay where they are.
 */
export function packTaken(pack: Pack, ids: ReadonlyMap<string, string>, existing: Pack | null): Pack {
  const idOf = (id: string): string | null => ids.get(keyed({ collection: 'brushes', id })) ?? null;
  const groups = pack.groups.map(({ name, brushes }) => ({
    name,
    brushes: [...new Set(brushes.map(idOf).filter((id) => id !== null))],
  }));
  const cover = pack.cover && idOf(pack.cover);
  if (!existing) return { ...pack, groups, cover };
  const has = new Set(existing.groups.flatMap(({ brushes }) => brushes));
  const next = existing.groups.map((group) => ({ ...group, brushes: [...group.brushes] }));
  for (const { name, brushes } of groups) {
    const fresh = brushes.filter((id) => !has.has(id));
    if (fresh.length === 0) continue;
    const group = next.find((one) => one.name === name);
    if (group) group.brushes.push(...fresh);
    else next.push({ name, brushes: fresh });
    fresh.forEach((id) => has.add(id));
  }
  return { ...existing, groups: next };
}
