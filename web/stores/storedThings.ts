/** What is done to one thing among the sources, as a step that is undone: renamed, copied, deleted. */
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { brushesOf, NameSchema } from '#core/settings';
import { SINGULAR, type Documents, type StoredDocument } from '#core/stored';
import * as api from '../api/client';
import { hasDraft } from '../api/drafts';
import { plain } from '../api/plain';
import { useLibrary, type Shelf } from './library';
import { usePacks } from './packs';
import { useRackSteps } from './rackSteps';

export type StoredShelf = Exclude<Shelf, 'brushes'>;
interface Named {
  id: string;
  card: { name: string };
}

/** Something that others name is about to be deleted. */
export interface Asked {
  /** How it is called in the question. */
  name: string;
  collection: Shelf;
  users: readonly api.User[];
  go: () => Promise<void>;
}

export const useStoredThings = defineStore('storedThings', () => {
  const library = useLibrary();
  const steps = useRackSteps();
  const packs = usePacks();
  const asked = shallowRef<Asked | null>(null);

  /** Throws a sentence, and changes nothing, where it can’t have the name. */
  async function rename(collection: StoredShelf, { id, card }: Named, wanted: string): Promise<void> {
    const name = NameSchema.safeParse(wanted);
    if (!name.success) throw new Error(name.error.issues[0].message);
    const old = card.name;
    if (old === name.data) return;
    await putName(collection, id, name.data);
    steps.did({
      done: `“${old}” is now “${name.data}”.`,
      undo: () => putName(collection, id, old),
      redo: () => putName(collection, id, name.data),
    });
  }

  async function putName(collection: StoredShelf, id: string, name: string): Promise<void> {
    const { doc, revision } = await current(collection, id);
    const next = plain(doc);
    next.card.name = name;
    await put(collection, next, revision);
  }

  /** As it is saved: what isn’t saved stays with the first. */
  async function copy(collection: StoredShelf, { id, card }: Named): Promise<void> {
    const { doc } = await api.get(collection, id);
    const next = plain(doc);
    next.id = crypto.randomUUID();
    next.card.name = library.freeName(collection, `${card.name.slice(0, 70)} copy`);
    const stored = await api.save(collection, next, null);
    library.putStored(collection, stored as StoredDocument<StoredShelf>);
    steps.did({
      done: `“${next.card.name}” made.`,
      undo: () => library.remove(collection, next.id),
      redo: () => library.restore(collection, next.id),
    });
  }

  /** It is again what it was at an earlier save; what it was until now is an earlier save then. */
  async function takeBack<C extends StoredShelf>(collection: C, { id }: Named, past: Documents[C]): Promise<void> {
    const before = await current(collection, id);
    const { name } = before.doc.card;
    const doc = { ...plain(past), card: { ...past.card, name } };
    let on = await put(collection, doc, before.revision);
    /** What was saved since stays. */
    const again = async (wanted: Documents[C]): Promise<void> => {
      const now = await current(collection, id);
      if (now.revision !== on) throw new Error(`“${name}” was changed since; it stays as it is.`);
      on = await put(collection, plain(wanted) as Documents[C], on);
    };
    steps.did({ done: `“${name}” is as it was.`, undo: () => again(before.doc), redo: () => again(doc) });
  }

  /** As it is saved. Throws a sentence where there is work on it that isn’t. */
  async function current<C extends StoredShelf>(collection: C, id: string): Promise<StoredDocument<C>> {
    if (await hasDraft(id))
      throw new Error(
        `This ${SINGULAR[collection]} has changes that aren’t saved. Open it, and save or revert them first.`,
      );
    return api.get(collection, id);
  }

  /** Answers its revision now. */
  async function put<C extends StoredShelf>(collection: C, doc: Documents[C], on: number): Promise<number> {
    const stored = await api.save(collection, doc, on);
    library.putStored(collection, stored);
    return stored.revision;
  }

  /** Deletes it at once where nothing names it; where something does, that is said first. */
  async function askRemove(collection: StoredShelf, { id, card }: Named): Promise<void> {
    const users = await api.usersOf(collection, id);
    if (users.length === 0) await remove(collection, { id, card });
    else asked.value = { name: `“${card.name}”`, collection, users, go: () => remove(collection, { id, card }) };
  }

  /** Says first which packs lose brushes; at once where none does. */
  async function askRemoveBrushes(name: string, ids: readonly string[], go: () => Promise<void>): Promise<void> {
    const losing = packs.all.filter((pack) => brushesOf(pack).some((id) => ids.includes(id)));
    if (losing.length === 0) return go();
    const users = losing.map(({ id, card }) => ({ collection: 'packs' as const, id, name: card.name, needed: false }));
    asked.value = { name, collection: 'brushes', users, go };
  }

  /** What was asked about is deleted, or stays. */
  async function answer(yes: boolean): Promise<void> {
    const now = asked.value;
    asked.value = null;
    if (yes) await now?.go();
  }

  async function remove(collection: StoredShelf, { id, card }: Named): Promise<void> {
    await library.remove(collection, id);
    steps.did({
      done: `“${card.name}” deleted.`,
      undo: () => library.restore(collection, id),
      redo: () => library.remove(collection, id),
    });
  }

  return { asked, rename, copy, takeBack, askRemove, askRemoveBrushes, answer, remove };
});
