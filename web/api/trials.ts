/** Test strokes of one's own, kept in the browser beside the bodies they were drawn on. */
import { createStore, del, get, keys, set } from 'idb-keyval';
import type { TrialStroke } from '#core/trial';

export interface OwnTrial {
  id: string;
  name: string;
  /** A shipped body's name or the id of one's own. */
  body: string;
  strokes: TrialStroke[];
  addedAt: number;
}

const store = createStore('mold-stamp-trials', 'trials');

export async function ownTrials(): Promise<OwnTrial[]> {
  const all = await Promise.all((await keys<string>(store)).map((key) => get<OwnTrial>(key, store)));
  return all.filter((t) => t !== undefined).sort((a, b) => a.addedAt - b.addedAt);
}

export async function keepTrial(trial: OwnTrial): Promise<void> {
  await set(trial.id, trial, store);
}

export async function dropTrial(id: string): Promise<void> {
  await del(id, store);
}
