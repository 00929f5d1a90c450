/** Copies of everything that the server keeps. */
import { z } from 'zod';
import { BackupPlanSchema, COPY_KINDS, type BackupPlan } from '#core/backup';
import { json, request } from './client';
import { upload, type UploadHand } from './upload';

const CopySchema = z.object({ name: z.string(), kind: z.enum(COPY_KINDS), at: z.string(), bytes: z.number() });
export type BackupCopy = z.infer<typeof CopySchema>;
const View = z.object({
  folder: z.string(),
  plan: z.object(BackupPlanSchema.shape),
  copies: z.array(CopySchema),
  going: z.object({ what: z.enum(['copy', 'check', 'restore']), done: z.number(), of: z.number() }).nullable(),
});
export type BackupView = z.infer<typeof View>;
const Restored = z.object({
  changed: z.number(),
  trashed: z.number(),
  problems: z.array(z.string()),
  before: z.string().nullable(),
});
export type Restored = z.infer<typeof Restored>;

const at = (name: string): string => `/backups/files/${encodeURIComponent(name)}`;

export async function backups(): Promise<BackupView> {
  return View.parse(await (await request('/backups')).json());
}

export async function makeBackup(): Promise<BackupCopy> {
  return CopySchema.parse(await (await request('/backups', { method: 'POST' })).json());
}

export async function putBackupPlan(plan: BackupPlan): Promise<void> {
  await request('/backups/plan', json('PUT', plan));
}

export async function cancelBackup(): Promise<void> {
  await request('/backups/going', { method: 'DELETE' });
}

/** Sends a copy from elsewhere; it is checked before it is kept. */
export async function bringBackup(file: File, hand: UploadHand): Promise<BackupCopy> {
  const name = encodeURIComponent(file.name.slice(0, 200) || 'The backup');
  return CopySchema.parse(await (await upload(`/backups/files?name=${name}`, file, hand)).json());
}

export const backupUrl = (name: string): string => `/api${at(name)}`;

export async function removeBackup(name: string): Promise<void> {
  await request(at(name), { method: 'DELETE' });
}

export async function restoreBackup(name: string, others: 'keep' | 'trash'): Promise<Restored> {
  return Restored.parse(await (await request(`${at(name)}/restore?others=${others}`, { method: 'POST' })).json());
}
