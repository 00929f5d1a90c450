import type { Collection } from '#core/stored';
import * as api from '../api/client';
import { sentence } from '../stores/connection';
import { failNotice } from './undoNotice';

/** Gives an earlier save a name, or none; what can’t be done is said, and the old name stands again. */
export async function nameSave(collection: Collection, id: string, save: api.Past, wanted: string): Promise<void> {
  const old = save.name;
  const name = wanted.trim();
  if (name === old) return;
  save.name = name;
  try {
    await api.nameRevision(collection, id, save.revision, name);
  } catch (error) {
    save.name = old;
    failNotice(sentence(error));
  }
}
