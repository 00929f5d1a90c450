/** Brushes set into packs, taken out and put in order. Nothing is changed in place. */
import type { Pack } from '#core/settings';

type Grouped = Pick<Pack, 'groups'>;

/** Where brushes go: before this one of the group’s, or at its end. */
export interface Place {
  group: number;
  before: string | null;
}

/**
 * The brushes stand together at the place, in the order given, wherever they stood before. A place before one of
 * themselves is before the next that isn’t.
 */
export function withBrushes<P extends Grouped>(pack: P, ids: readonly string[], place: Place): P {
  const moved = new Set(ids);
  return {
    ...pack,
    groups: pack.groups.map((group, g) => {
      const rest = group.brushes.filter((id) => !moved.has(id));
      if (g !== place.group) return { ...group, brushes: rest };
      const from = place.before === null ? -1 : group.brushes.indexOf(place.before);
      const next = from < 0 ? undefined : group.brushes.slice(from).find((id) => !moved.has(id));
      const at = next === undefined ? rest.length : rest.indexOf(next);
      return { ...group, brushes: [...rest.slice(0, at), ...moved, ...rest.slice(at)] };
    }),
  };
}

export function withoutBrushes<P extends Grouped>(pack: P, ids: readonly string[]): P {
  const gone = new Set(ids);
  return {
    ...pack,
    groups: pack.groups.map((group) => ({ ...group, brushes: group.brushes.filter((id) => !gone.has(id)) })),
  };
}

/** Its brushes go to the group before it, or to the one after the first. The last group stays. */
export function withoutGroup<P extends Grouped>(pack: P, index: number): P {
  if (pack.groups.length === 1) return pack;
  const to = index === 0 ? 1 : index - 1;
  const { brushes } = pack.groups[index];
  const groups = pack.groups
    .map((group, g) => {
      if (g !== to) return group;
      return { ...group, brushes: index === 0 ? [...brushes, ...group.brushes] : [...group.brushes, ...brushes] };
    })
    .filter((_, g) => g !== index);
  return { ...pack, groups };
}
