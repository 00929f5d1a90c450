/** What copies are called, when the next one is due, and which are let go. */
import { z } from 'zod';

/** How often a copy is made by itself, and how many of those are kept. */
export const BackupPlanSchema = z.object({
  every: z.enum(['never', 'day', 'week'], 'A copy is made every day, every week or never.').default('day'),
  keep: z
    .number('The number of copies must be a number.')
    .int('Copies are counted in whole numbers.')
    .min(1, 'At least one copy is kept.')
    .max(50, 'At most 50 copies are kept.')
    .default(3),
});
export type BackupPlan = z.infer<typeof BackupPlanSchema>;

/** Why a copy was made: asked for, by itself, before a restore, or brought from elsewhere. */
export const COPY_KINDS = ['by hand', 'scheduled', 'before a restore', 'brought'] as const;
export type CopyKind = (typeof COPY_KINDS)[number];

export interface Copy {
  /** Of the file. */
  name: string;
  kind: CopyKind;
  /** When it was made, or brought. */
  at: Date;
  bytes: number;
}

export const COPY_ENDING = '.backup.zip';
/** Copies made before a restore are let go as well, the oldest first. */
const KEPT_BEFORE_RESTORES = 3;
const DAY_MS = 24 * 3600_000;

const two = (n: number): string => String(n).padStart(2, '0');

/** By UTC, so that names sort as the copies were made wherever the clock stands. */
export function copyName(kind: CopyKind, at: Date): string {
  const day = `${at.getUTCFullYear()}-${two(at.getUTCMonth() + 1)}-${two(at.getUTCDate())}`;
  const time = [at.getUTCHours(), at.getUTCMinutes(), at.getUTCSeconds()].map(two).join('.');
  return `${day} ${time} ${kind}${COPY_ENDING}`;
}

/** Null where a file is no copy of ours. */
export function copyOf(name: string, bytes: number): Copy | null {
  const found = /^(\d{4}-\d\d-\d\d) (\d\d)\.(\d\d)\.(\d\d) ([a-z ]+)\.backup\.zip$/.exec(name);
  if (!found) return null;
  const [, day, hours, minutes, seconds, called] = found;
  const kind = COPY_KINDS.find((each) => each === called);
  const at = new Date(`${day}T${hours}:${minutes}:${seconds}Z`);
  return kind && !Number.isNaN(at.getTime()) ? { name, kind, at, bytes } : null;
}

/** Copies that are let go once a new one is there. */
export function copiesToDrop(copies: readonly Copy[], { keep }: BackupPlan): Copy[] {
  const newest = [...copies].sort((a, b) => b.name.localeCompare(a.name));
  const beyond = (kind: CopyKind, most: number): Copy[] => newest.filter((copy) => copy.kind === kind).slice(most);
  return [...beyond('scheduled', keep), ...beyond('before a restore', KEPT_BEFORE_RESTORES)];
}

/** Whether it is time, whoever made the last copy. What was brought says nothing of what is here. */
export function copyDue(copies: readonly Copy[], { every }: BackupPlan, now: Date): boolean {
  if (every === 'never') return false;
  const last = Math.max(...copies.filter(({ kind }) => kind !== 'brought').map(({ at }) => at.getTime()), 0);
  return now.getTime() - last >= (every === 'day' ? DAY_MS : 7 * DAY_MS);
}
