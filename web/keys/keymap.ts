/** Which key does what: the usual ones, and those chosen by hand instead. */
import { COMMANDS, COMMAND_IDS, type CommandId } from './commands';

/** Keys chosen by hand. An empty one: the command has no key. */
export type ChosenKeys = Readonly<Partial<Record<string, string>>>;

export function keysOf(id: CommandId, chosen: ChosenKeys): readonly string[] {
  const own = COMMANDS[id].fixed ? undefined : chosen[id];
  return own === undefined ? COMMANDS[id].keys : own === '' ? [] : [own];
}

/** A key as it is shown. */
export const keyName = (key: string): string =>
  key.replace(/Arrow(Left|Right|Up|Down)$/, (_, way: keyof typeof ARROWS) => ARROWS[way]);
const ARROWS = { Left: '←', Right: '→', Up: '↑', Down: '↓' };

/** The command that already has this key; null where it is free. */
export function holderOf(key: string, chosen: ChosenKeys, but?: CommandId): CommandId | null {
  return COMMAND_IDS.find((id) => id !== but && keysOf(id, chosen).includes(key)) ?? null;
}

/** Why a command can’t have this key; null where it can. */
export function hindrance(key: string, chosen: ChosenKeys, id: CommandId): string | null {
  const holder = holderOf(key, chosen, id);
  if (holder && COMMANDS[holder].fixed) return `${key} stays with “${COMMANDS[holder].what}”. Press another key.`;
  if (COMMANDS[id].held && key.includes('+'))
    return 'A key that is held stands alone. Press one without Ctrl, Alt or Shift.';
  if (['Tab', 'Space', 'Ctrl+W', 'Ctrl+T', 'Ctrl+N', 'F5', 'F11', 'F12'].includes(key))
    return `${key} belongs to the browser. Press another key.`;
  return null;
}

/**
 * The chosen keys once `id` has this one. What had it before gets `id`’s key in exchange where that will do, and none
 * otherwise, so that no key ever has two meanings.
 */
export function assigned(chosen: ChosenKeys, id: CommandId, key: string): Record<string, string> {
  const next = own(chosen);
  const holder = holderOf(key, chosen, id);
  const free = keysOf(id, chosen)[0] ?? '';
  next[id] = key;
  if (holder) next[holder] = free && !hindrance(free, { ...next, [holder]: '' }, holder) ? free : '';
  return usualLeftOut(next);
}

/** The chosen keys once `id` has its usual one again; who has that meanwhile gives it back. */
export function usual(chosen: ChosenKeys, id: CommandId): Record<string, string> {
  const next = own(chosen);
  delete next[id];
  for (const key of COMMANDS[id].keys) {
    const holder = holderOf(key, next, id);
    if (holder) next[holder] = '';
  }
  return usualLeftOut(next);
}

function own(chosen: ChosenKeys): Record<string, string> {
  return Object.fromEntries(
    Object.entries(chosen).filter((entry): entry is [string, string] => entry[1] !== undefined),
  );
}

function usualLeftOut(chosen: Record<string, string>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(chosen).filter(([id, key]) => {
      const command = COMMANDS[id as CommandId] as (typeof COMMANDS)[CommandId] | undefined;
      return command && !(command.keys.length === 1 && command.keys[0] === key);
    }),
  );
}
