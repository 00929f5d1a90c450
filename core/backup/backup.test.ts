import fc from 'fast-check';
import {
  BACKUP_FORMAT,
  COPY_KINDS,
  copiesToDrop,
  copyDue,
  copyName,
  copyOf,
  readBackupManifest,
  type BackupPlan,
  type Copy,
} from './index';

const DAY = 24 * 3600_000;
const at = (ms: number): Date => new Date(Date.UTC(2026, 0, 1) + ms);
const copies = fc
  .uniqueArray(fc.tuple(fc.integer({ min: 0, max: 100_000 }), fc.constantFrom(...COPY_KINDS)), {
    selector: ([seconds]) => seconds,
    maxLength: 40,
  })
  .map((all) => all.map(([seconds, kind]) => copyOf(copyName(kind, at(seconds * 1000)), 1)!));
const plans = fc.record<BackupPlan>({
  every: fc.constantFrom('never', 'day', 'week'),
  keep: fc.integer({ min: 1, max: 50 }),
});

test('a copy’s name says when and why it was made, and sorts by time', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 3_000_000_000 }), fc.constantFrom(...COPY_KINDS), (seconds, kind) => {
      const name = copyName(kind, at(seconds * 1000));
      expect(copyOf(name, 7)).toEqual({ name, kind, at: at(seconds * 1000), bytes: 7 });
      expect(copyName(kind, at(seconds * 1000 + 1000)) > name).toBe(true);
    }),
  );
});

test('other files are no copies', () => {
  for (const name of [
    'plan.json',
    '2026-01-01 10.00.00 weekly.backup.zip',
    '2026-13-01 10.00.00 by hand.backup.zip',
    '../2026-01-01 10.00.00 by hand.backup.zip',
    '2026-01-01 10.00.00 by hand.backup.zip.part',
  ])
    expect(copyOf(name, 1)).toBeNull();
});

test('what a person asked for is never let go; of the others the newest stay', () => {
  fc.assert(
    fc.property(copies, plans, (all, plan) => {
      const dropped = new Set(copiesToDrop(all, plan));
      const left = all.filter((copy) => !dropped.has(copy));
      const of = (some: readonly Copy[], kind: Copy['kind']): Copy[] => some.filter((copy) => copy.kind === kind);
      for (const kind of ['by hand', 'brought'] as const) expect(of(left, kind)).toEqual(of(all, kind));
      expect(of(left, 'scheduled')).toHaveLength(Math.min(plan.keep, of(all, 'scheduled').length));
      for (const gone of dropped)
        for (const stays of of(left, gone.kind)) expect(stays.at.getTime()).toBeGreaterThan(gone.at.getTime());
    }),
  );
});

test('a copy is due a day, or a week, after the last that was made here', () => {
  const last = copyOf(copyName('by hand', at(0)), 1)!;
  const brought = copyOf(copyName('brought', at(6 * DAY)), 1)!;
  const due = (every: BackupPlan['every'], ms: number): boolean => copyDue([brought, last], { every, keep: 3 }, at(ms));
  expect([due('day', DAY - 1), due('day', DAY), due('week', DAY), due('week', 7 * DAY)]).toEqual([
    false,
    true,
    false,
    true,
  ]);
  expect(due('never', 100 * DAY)).toBe(false);
  expect(copyDue([], { every: 'week', keep: 3 }, at(0))).toBe(true);
});

test('a newer backup is said to be newer, anything else to be damaged', () => {
  const said = (value: unknown): string => {
    const read = readBackupManifest(value);
    return read.ok ? '' : read.reason;
  };
  expect(said({ format: BACKUP_FORMAT, version: 99 })).toContain('newer Mold Stamp');
  for (const value of [null, 3, [], {}, { format: 'x' }, { format: BACKUP_FORMAT, version: 1 }])
    expect(said(value)).toContain('damaged');
});
