/**
 * Kills a server again and again while brushes are saved and a pack is taken, and looks each time that what was
 * acknowledged is there, and that of the pack all is shown or nothing.
 */
import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { newBrush } from '#core/settings';
import { good, namesOf } from '../testAsks';
import { SERVER, spawnServer, type Spawned } from '../testKit';

interface Killed {
  /** Saves that were acknowledged in all, and takings of the pack. */
  saves: number;
  takings: number;
  /** Kills that came while the pack was being taken. */
  midway: number;
}

/** Throws a sentence where something is lost or half-written; `told` hears of each round that went well. */
export async function killed(
  times: number,
  pack: Uint8Array,
  template: string,
  random: () => number,
  told: (rounds: number, so: Killed) => void = () => undefined,
): Promise<Killed> {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  const out: Killed = { saves: 0, takings: 0, midway: 0 };
  const saved = new Set<string>();
  const data = join(folder, 'data');
  let server: Spawned | null = null;
  const begin = async (): Promise<void> => {
    await rm(data, { recursive: true, force: true, maxRetries: 10 });
    saved.clear();
  };
  try {
    for (let round = 0; round < times; told(++round, out)) {
      const now = (server = await spawnServer(data, '0', SERVER, template));
      const brushes = await namesOf(now, 'brushes');
      const lost = [...saved].filter((id) => !brushes.has(id));
      if (lost.length > 0) throw new Error(`${lost.length} acknowledged saves are lost after kill ${round}.`);
      const there = [...brushes.values()].filter((name) => /^Brush \d+ of/.test(name)).length;
      const whole = (await namesOf(now, 'packs')).size > 0;
      if (there !== (whole ? PACKED_BRUSHES : 0))
        throw new Error(`${there} brushes of the pack show after kill ${round}.`);
      if (whole || saved.size > MOST_SAVED) {
        // Begun anew, so that there is something to take again, and few enough that it is taken in time.
        await now.end('SIGKILL');
        await begin();
        continue;
      }

      let stop = false;
      const saving = (async () => {
        while (!stop) {
          const doc = newBrush(randomUUID(), `Kept ${randomUUID()}`);
          await good(now, `/brushes/${doc.id}`, 'PUT', { doc, revision: null });
          saved.add(doc.id);
          out.saves++;
          await wait(PAUSE_MS);
        }
      })().catch(() => undefined);
      let going = false;
      const looking = good<{ id: string }>(now, '/pack-imports', 'POST', pack);
      const taking = (async () => {
        const { id } = await looking;
        going = true;
        await good(now, `/pack-imports/${id}/take`, 'POST', {});
        going = false;
        out.takings++;
      })().catch(() => undefined);
      // Mostly while it is taken, sometimes while it is looked into.
      if (random() < 0.2) await Promise.race([looking, wait(random() * 2000)]);
      else {
        await looking;
        await Promise.race([taking, wait(random() * 1200)]);
      }
      if (going) out.midway++;
      stop = true;
      await now.end('SIGKILL');
      await Promise.all([saving, taking]);
    }
    return out;
  } finally {
    await (server as Spawned | null)?.end('SIGKILL');
    // A helper that still writes is about to notice that its server is gone.
    await rm(folder, { recursive: true, force: true, maxRetries: 10 });
  }
}

/** Between saves: the pack has its turn too. */
const PAUSE_MS = 15;
const MOST_SAVED = 600;
/** In the pack of `testPack`. */
const PACKED_BRUSHES = 6;
