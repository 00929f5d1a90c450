/**
 * Kills a server again and again while it restores a copy, and looks each time that everything is as it was before, or
 * everything as the copy has it.
 */
import { randomUUID } from 'node:crypto';
import { cp, mkdir, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import type { Copy } from '#core/backup';
import { newBrush } from '#core/settings';
import { ask, good, namesOf } from '../testAsks';
import { SERVER, spawnServer, type Spawned } from '../testKit';

interface Killed {
  /** Restores that were acknowledged, and kills that came before they were. */
  restored: number;
  midway: number;
}

interface Kept {
  doc: { id: string; card: { name: string }; data?: string };
  revision: number;
}

/** Throws a sentence where something is lost or half-restored; `told` hears of each round that went well. */
export async function killedRestoring(
  times: number,
  pack: Uint8Array,
  template: string,
  random: () => number,
  told: (rounds: number, so: Killed) => void = () => undefined,
): Promise<Killed> {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  const [data, first] = [join(folder, 'data'), join(folder, 'first')];
  const out: Killed = { restored: 0, midway: 0 };
  let server: Spawned | null = null;
  const spawned = async (): Promise<Spawned> => (server = await spawnServer(data, '0', SERVER, template));
  try {
    // A server that took a pack, and its copy.
    let now = await spawned();
    const { id } = await good<{ id: string }>(now, '/pack-imports', 'POST', pack);
    await good(now, `/pack-imports/${id}/take`, 'POST', {});
    const copied = await seen(now);
    const copy = await good<Copy>(now, '/backups', 'POST');
    await now.end('SIGTERM');
    await cp(join(data, 'backups'), join(first, 'backups'), { recursive: true });
    await cp(data, join(first, 'data'), { recursive: true });

    for (let round = 0; round < times; told(++round, out)) {
      // Onto a server that went on since, and onto an empty one, where all data comes from the copy.
      const onto = round % 2 === 0 ? 'changed' : 'empty';
      await rm(data, { recursive: true, force: true, maxRetries: 10 });
      if (onto === 'changed') await cp(join(first, 'data'), data, { recursive: true });
      else {
        await mkdir(data);
        await cp(join(first, 'backups'), join(data, 'backups'), { recursive: true });
      }
      now = await spawned();
      if (onto === 'changed') await goOn(now);
      const before = await seen(now);

      let done = false;
      const restoring = ask(now, `/backups/files/${encodeURIComponent(copy.name)}/restore?others=trash`, 'POST').then(
        ({ ok }) => (done = ok),
        () => undefined,
      );
      // A small copy is looked at and restored within this.
      await Promise.race([restoring, wait(random() * 2500)]);
      const acknowledged = done;
      await now.end('SIGKILL');
      await restoring;
      if (acknowledged) out.restored++;
      else out.midway++;

      now = await spawned();
      const after = await seen(now);
      const so = JSON.stringify(after);
      if (so !== JSON.stringify(copied) && (acknowledged || so !== JSON.stringify(before)))
        throw new Error(`A server killed while it restored onto an ${onto} one (round ${round}) shows a mixture.`);
      const { copies } = await good<{ copies: { name: string }[] }>(now, '/backups');
      if (!copies.some(({ name }) => name === copy.name)) throw new Error(`The copy is gone after round ${round}.`);
      await now.end('SIGKILL');
    }
    return out;
  } finally {
    await (server as Spawned | null)?.end('SIGKILL');
    await rm(folder, { recursive: true, force: true, maxRetries: 10 });
  }
}

/** Every brush, alpha and pack by name; the bytes of an alpha must be there where it is. */
async function seen(server: Spawned): Promise<string[]> {
  const all: string[] = [];
  for (const collection of ['brushes', 'alphas', 'packs'])
    for (const [id, name] of await namesOf(server, collection)) {
      all.push(`${collection} ${id} ${name}`);
      if (collection === 'alphas' && !(await ask(server, `/alphas/${id}/png`)).ok)
        throw new Error(`The alpha “${name}” shows, and its data doesn’t.`);
    }
  return all.sort();
}

/** What the copy has is renamed or deleted, and something new is there. */
async function goOn(server: Spawned): Promise<void> {
  let at = 0;
  for (const [id, name] of await namesOf(server, 'brushes')) {
    if (!/^Brush \d+ of/.test(name)) continue;
    const { doc, revision } = await good<Kept>(server, `/brushes/${id}`);
    if (at++ === 0) await good(server, `/brushes/${id}`, 'DELETE');
    else {
      const later = { ...doc, card: { ...doc.card, name: `${name}, later` } };
      await good(server, `/brushes/${id}`, 'PUT', { doc: later, revision });
    }
  }
  const since = newBrush(randomUUID(), 'Made since');
  await good(server, `/brushes/${since.id}`, 'PUT', { doc: since, revision: null });
}
