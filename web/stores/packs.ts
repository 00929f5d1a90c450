/** Packs: brushes in groups and in order. Every change is kept at once, sent a moment later, and a step to undo. */
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { withBrushes, withoutBrushes, type Place } from '#core/pack';
import { brushesOf, newPack, PackSchema, PACK_VERSION, type Pack } from '#core/settings';
import { plain } from '../api/plain';
import { useRackSteps } from './rackSteps';
import { useSentSoon } from './sentSoon';
import { usePreferences } from './preferences';

export const usePacks = defineStore('packs', () => {
  const steps = useRackSteps();
  /** Packs that became others: steps that were made on the first go on with the last. */
  const others = new Map<string, string>();
  const {
    docs: all,
    docOf,
    put,
    remove: removeOne,
    freeName,
    send,
    load,
    problem,
    loaded,
  } = useSentSoon<'packs'>({
    collection: 'packs',
    key: 'packs-unsent',
    unnamed: 'Pack',
    documentOf: ({ id, card, site, licence, rack, cover, groups }) =>
      PackSchema.parse({ version: PACK_VERSION, id, card, site, licence, rack, cover, groups }),
    became: (id, other) => others.set(id, other),
  });
  const idNow = (id: string): string => {
    let now = id;
    for (let next = others.get(now); next; next = others.get(now)) now = next;
    return now;
  };

  /** Of each brush, the packs that it is in. */
  const packsOf = computed(() => {
    const out = new Map<string, Pack[]>();
    for (const pack of all.value) for (const id of brushesOf(pack)) out.set(id, [...(out.get(id) ?? []), pack]);
    return out;
  });
  /** Names of racks beside one’s own. */
  const racks = computed(() => [...new Set(all.value.map(({ rack }) => rack))].filter(Boolean).sort());

  /** Changes packs as one step. Throws a sentence, and changes nothing, where one would be no pack any more. */
  function change(done: string, of: readonly string[], how: (pack: Pack) => Pack, says = true): void {
    const before = of.map((id) => docOf(idNow(id))).filter((pack) => pack !== null);
    const after = before.map((pack) => checked(how(plain(pack))));
    const changed = before.map((pack, i) => [pack, after[i]] as const).filter(([p, q]) => differs(p, q));
    if (changed.length === 0) return;
    const set = (which: 0 | 1) => (): Promise<void> => {
      for (const pair of changed) {
        const id = idNow(pair[0].id);
        if (docOf(id)) put({ ...pair[which], id });
      }
      return Promise.resolve();
    };
    void set(1)();
    steps.did({ done, undo: set(0), redo: set(1) }, says);
  }

  function checked(pack: Pack): Pack {
    const read = PackSchema.safeParse(pack);
    if (!read.success) throw new Error(read.error.issues[0].message);
    return read.data;
  }
  const differs = (a: Pack, b: Pack): boolean => JSON.stringify(a) !== JSON.stringify(b);

  /** A new pack of these, as part of a larger step. */
  function made(name: string, brushes: readonly string[], rack = ''): Pack {
    const own = usePreferences().now;
    // Another's rack holds another's work.
    const credit = rack ? {} : { author: own.author, licence: own.licence };
    const pack = newPack(crypto.randomUUID(), freeName(name), {
      rack,
      groups: [{ name: '', brushes: [...brushes] }],
      ...credit,
    });
    put(pack);
    return pack;
  }
  /** Takes one away as part of a larger step; answers what brings it back. */
  const unmade = (id: string): Promise<() => Promise<void>> => removeOne(idNow(id));

  /** A new pack of these. */
  function create(name: string, brushes: readonly string[] = [], rack = ''): Pack {
    const pack = made(name, brushes, rack);
    steps.did({
      done: `Pack “${pack.card.name}” made.`,
      undo: async () => void (await removeOne(idNow(pack.id))),
    });
    return pack;
  }

  async function remove(id: string): Promise<void> {
    const pack = docOf(id);
    if (!pack) return;
    const back = await removeOne(id);
    steps.did({ done: `Pack “${pack.card.name}” deleted; its brushes stay.`, undo: back });
  }

  function about(id: string, edit: (pack: Pack) => void): void {
    const pack = docOf(id);
    if (!pack) return;
    const next = plain(pack);
    edit(next);
    if (next.card.name !== pack.card.name) next.card.name = freeName(next.card.name, id);
    change(`“${next.card.name}” changed.`, [id], () => next, false);
  }

  /** Sets brushes into a pack; `from` are packs they leave for it. */
  function place(ids: readonly string[], to: string, at: Place, from: readonly string[] = []): void {
    const name = docOf(to)?.card.name ?? '';
    const leaves = from.some((id) => id !== to);
    const stays = !leaves && ids.every((id) => packsOf.value.get(id)?.some((pack) => pack.id === idNow(to)));
    change(
      `${counted(ids.length)} ${stays ? 'moved in' : leaves ? 'moved to' : 'put in'} “${name}”.`,
      [to, ...from.filter((id) => id !== to)],
      (pack) => (pack.id === idNow(to) ? withBrushes(pack, ids, at) : withoutBrushes(pack, ids)),
      !stays,
    );
  }

  function takeOut(ids: readonly string[], from: readonly string[]): void {
    const where = from.length === 1 ? `“${docOf(from[0])?.card.name ?? ''}”` : `${from.length} packs`;
    change(`${counted(ids.length)} taken out of ${where}.`, from, (pack) => withoutBrushes(pack, ids));
  }

  return {
    all,
    docOf,
    packsOf,
    racks,
    loaded,
    problem,
    change,
    made,
    unmade,
    create,
    remove,
    about,
    place,
    takeOut,
    send,
    load,
    freeName,
  };
});

export function counted(count: number): string {
  return count === 1 ? 'One brush' : `${count} brushes`;
}
