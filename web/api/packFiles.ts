/** Pack files: written by the server as they are fetched, looked into before anything of one is taken. */
import { z } from 'zod';
import { TRAVELLING, type Choice } from '#core/packFile';
import { PackSchema } from '#core/settings';
import { json, request } from './client';
import { upload, type UploadHand } from './upload';

export interface PackWish {
  /** A pack; null for brushes that were chosen one by one. */
  pack: string | null;
  brushes: readonly string[];
  name: string;
  recipes: boolean;
  sources: boolean;
  palettes: readonly string[];
}

const Planned = z.object({ id: z.string(), name: z.string(), brushes: z.number() });
const Writing = z.object({
  done: z.number(),
  of: z.number(),
  state: z.enum(['pending', 'writing', 'written', 'failed']),
  problem: z.string().nullable(),
});

export async function planExport(wish: PackWish): Promise<z.infer<typeof Planned>> {
  return Planned.parse(await (await request('/pack-exports', json('POST', wish))).json());
}

export async function exportState(id: string): Promise<z.infer<typeof Writing>> {
  return Writing.parse(await (await request(`/pack-exports/${id}`)).json());
}

export async function cancelExport(id: string): Promise<void> {
  await request(`/pack-exports/${id}`, { method: 'DELETE' });
}

/** As a pack file, or as a page with it inside. */
export const exportUrl = (id: string, as: 'file' | 'page'): string => `/api/pack-exports/${id}/${as}`;

const Look = z.object({
  id: z.string(),
  file: z.string(),
  name: z.string(),
  pack: z.object(PackSchema.shape).nullable(),
  packHere: z.boolean(),
  things: z.array(
    z.object({
      key: z.string(),
      collection: z.enum(TRAVELLING),
      id: z.string(),
      name: z.string(),
      becomes: z.string(),
      maker: z.string(),
      licence: z.string(),
      meets: z.enum(['new', 'here', 'other']),
      existing: z.string().nullable(),
      replaceable: z.boolean(),
      picture: z.boolean(),
    }),
  ),
  problems: z.array(z.object({ path: z.string(), problem: z.string() })),
});
export type PackLook = z.infer<typeof Look>;
export type PackThing = PackLook['things'][number];

/** Sends the file, and answers what it holds. */
export async function lookInto(file: File, hand: UploadHand): Promise<PackLook> {
  const name = encodeURIComponent(file.name.slice(0, 200) || 'The pack');
  return Look.parse(await (await upload(`/pack-imports?name=${name}`, file, hand)).json());
}

const Came = z.object({
  came: z.array(
    z.object({ collection: z.enum(TRAVELLING), id: z.string(), name: z.string(), before: z.number().nullable() }),
  ),
  pack: z.object({ id: z.string(), before: z.number().nullable() }).nullable(),
});
export type Came = z.infer<typeof Came>;

export async function takeImport(id: string, choices: Record<string, Choice>, rack: string): Promise<Came> {
  return Came.parse(await (await request(`/pack-imports/${id}/take`, json('POST', { choices, rack }))).json());
}

const Progress = z.object({ progress: z.object({ done: z.number(), of: z.number() }).nullable() });

export async function importProgress(id: string): Promise<z.infer<typeof Progress>['progress']> {
  return Progress.parse(await (await request(`/pack-imports/${id}/progress`)).json()).progress;
}

/** Lets go of it; while it is being taken, stops that. */
export async function dropImport(id: string): Promise<void> {
  await request(`/pack-imports/${id}`, { method: 'DELETE' });
}

export const importPicture = (id: string, brush: string): string => `/api/pack-imports/${id}/pictures/${brush}`;
