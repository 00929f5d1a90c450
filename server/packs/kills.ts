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
import { SERVER, spawnServer, type Spawned } from '../testKit';

interface Killed {
  /** Saves that were acknowledged in all, and takings of the pack. */
  saves: number;
  takings: number;
  /** Kills that came while the pack was being taken. */
  midway: number;
}

/** Throws a sentence where something is lost or half-written. */
export async function killed(times: number, pack: Uint8Array, template: string, random: () => number): Promise<Killed> {
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
    for (let round = 0; round < times; round++) {
      const now = (server = await spawnServer(data, '0', SERVER, template));
      const api = async <T>(path: string, method = 'GET', body?: Uint8Array | string): Promise<T> => {
        const headers = typeof body === 'string' ? { 'Content-Type': 'application/json' } : {};
        const init = body === undefined ? {} : { body: body as BodyInit };
        const answer = await fetch(`${now.address}/api${path}`, { method, headers, ...init });
        if (!answer.ok) throw new Error(await answer.text());
        return (await answer.json()) as T;
      };
      const names = async (collection: string): Promise<Map<string, string>> => {
        const all = new Map<string, string>();
        for (let after: string | null = ''; after !== null;) {
          const page: { items: { id: string; card: { name: string } }[]; next: string | null } = await api(
            `/${collection}?limit=500${after && `&after=${encodeURIComponent(after)}`}`,
          );
          for (const { id, card } of page.items) all.set(id, card.name);
          after = page.next;
        }
        return all;
      };

      const brushes = await names('brushes');
      const lost = [...saved].filter((id) => !brushes.has(id));
      if (lost.length > 0) throw new Error(`${lost.length} acknowledged saves are lost after kill ${round}.`);
      const there = [...brushes.values()].filter((name) => /^Brush \d+ of/.test(name)).length;
      const whole = (await names('packs')).size > 0;
      if (there !== (whole ? PACKED_BRUSHES : 0))
        throw new Error(`${there} brushes of the pack show after kill ${round}.`);
      if (whole) {
        // Begun anew, so that there is something to take again.
        await now.end('SIGKILL');
        await begin();
        continue;
      }

      let stop = false;
      const saving = (async () => {
        while (!stop) {
          const doc = newBrush(randomUUID(), `Kept ${randomUUID()}`);
          await api(`/brushes/${doc.id}`, 'PUT', JSON.stringify({ doc, revision: null }));
          saved.add(doc.id);
          out.saves++;
          await wait(PAUSE_MS);
        }
      })().catch(() => undefined);
      let going = false;
      const looking = api<{ id: string }>('/pack-imports', 'POST', pack);
      const taking = (async () => {
        const { id } = await looking;
        going = true;
        await api(`/pack-imports/${id}/take`, 'POST', '{}');
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
/** In the pack of `testPack`. */
const PACKED_BRUSHES = 6;
