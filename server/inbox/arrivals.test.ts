import { seeded } from '#core/random';
import { InboxArrivals, LEASE_MS, QUIET_MS, type SeenFile } from './arrivals';

const file = (path: string, bytes: number, changed = 0): SeenFile => ({ path, bytes, changed });
const anything = (): null => null;
const states = (inbox: InboxArrivals, now: number): string[] => inbox.list(now).map(({ state }) => state);

test('a file that grows is whole only when it was the same for a while', () => {
  const inbox = new InboxArrivals(anything);
  for (let t = 0; t < 10; t++) {
    inbox.look([file('scan.ply', 100 * t, t)], t * 1500);
    expect(states(inbox, t * 1500)).toEqual(['growing']);
    expect(inbox.claim(inbox.list(t * 1500)[0].id, t * 1500)).toBeNull();
  }
  inbox.look([file('scan.ply', 900, 9)], 9 * 1500 + QUIET_MS);
  expect(states(inbox, 9 * 1500 + QUIET_MS)).toEqual(['whole']);
});

test('an empty file stays growing: whoever writes it has just begun', () => {
  const inbox = new InboxArrivals(anything);
  inbox.look([file('scan.ply', 0)], 0);
  inbox.look([file('scan.ply', 0)], 60_000);
  expect(states(inbox, 60_000)).toEqual(['growing']);
});

test('what can’t be taken is told, and never given', () => {
  const inbox = new InboxArrivals(({ path }) => (path.endsWith('.txt') ? 'Not a picture.' : null));
  inbox.look([file('notes.txt', 5)], 0);
  inbox.look([file('notes.txt', 5)], QUIET_MS);
  expect(inbox.list(QUIET_MS)).toMatchObject([{ state: 'refused', why: 'Not a picture.' }]);
  expect(inbox.claim(inbox.list(QUIET_MS)[0].id, QUIET_MS)).toBeNull();
});

test('a page that is gone gives its file back; what it says afterwards counts once', () => {
  const inbox = new InboxArrivals(anything);
  inbox.look([file('a.png', 5)], 0);
  const { id } = inbox.list(0)[0];
  expect(inbox.claim(id, QUIET_MS)).not.toBeNull();
  expect(inbox.claim(id, QUIET_MS + LEASE_MS - 1)).toBeNull();
  expect(inbox.claim(id, QUIET_MS + LEASE_MS)).not.toBeNull();
  expect(inbox.settle(id, { ok: true })).not.toBeNull();
  expect(inbox.settle(id, { ok: false, why: 'late' })).toBeNull();
  expect(inbox.claim(id, 10 * LEASE_MS)).toBeNull();
});

test('whatever pages, writers and looks do and in whatever order: each version of a file is taken at most once at a time and settled at most once', () => {
  for (let seed = 1; seed <= 300; seed++) {
    const random = seeded(seed);
    const pick = (n: number): number => Math.floor(random() * n);
    const inbox = new InboxArrivals(anything);
    const disk = new Map<string, SeenFile>();
    const holders = new Map<string, number>();
    const settled = new Set<string>();
    let now = 0;
    for (let step = 0; step < 120; step++) {
      now += pick(900);
      const ids = inbox.list(now).map(({ id }) => id);
      const id = ids[pick(Math.max(1, ids.length))];
      switch (pick(5)) {
        case 0: {
          const path = `f${pick(3)}`;
          disk.set(path, file(path, 1 + pick(4), now));
          break;
        }
        case 1:
          if (pick(4) === 0) disk.delete(`f${pick(3)}`);
          break;
        case 2:
          inbox.look([...disk.values()], now);
          break;
        case 3: {
          const got = id && inbox.claim(id, now);
          if (!got) break;
          // It was the same for a while when it was last looked at, nobody else has it, and it isn't done with.
          expect(now - (holders.get(id) ?? -Infinity)).toBeGreaterThanOrEqual(LEASE_MS);
          expect(settled.has(id)).toBe(false);
          holders.set(id, now);
          break;
        }
        case 4:
          if (id && inbox.settle(id, pick(2) ? { ok: true } : { ok: false, why: 'no' })) {
            expect(settled.has(id)).toBe(false);
            expect(holders.has(id)).toBe(true);
            settled.add(id);
          }
          break;
      }
    }
  }
});
