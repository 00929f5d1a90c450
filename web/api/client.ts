/** Talks to the server. Answers are checked with the same schemas the server checks requests with. */
import { z } from 'zod';
import type { Raster } from '#core/picture';
import {
  COLLECTIONS,
  HEAD_SCHEMAS,
  SCHEMAS,
  type Collection,
  type Documents,
  type Heads,
  type StoredDocument,
  type Listed,
} from '#core/stored';
import { AlphaSchema } from '#core/settings';

/** The server was not there to answer. */
export class ServerAway extends Error {
  constructor() {
    super('The server can’t be reached.');
  }
}

/** The server answered no, with a sentence. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details: Record<string, unknown>,
  ) {
    super(message);
  }
}

/** What became of the stored document that a save was made on; null for any other error. */
export function conflictOf(error: unknown): 'changed' | 'deleted' | null {
  if (!(error instanceof Refused)) return null;
  switch (error.code) {
    case 'changed-elsewhere':
      return 'changed';
    case 'deleted-elsewhere':
      return 'deleted';
    default:
      return null;
  }
}

/** The server has no such document. */
export function isMissing(error: unknown): boolean {
  return error instanceof Refused && error.code === 'not-found';
}

const ErrorBody = z.object({
  error: z.object({ code: z.string(), message: z.string(), details: z.record(z.string(), z.unknown()) }),
});
const Skipped = z.array(z.object({ id: z.string(), name: z.string(), reason: z.string() }));
export type SkippedRow = z.infer<typeof Skipped>[number];

const about = { revision: z.number(), base: z.boolean(), updatedAt: z.string() };

function storedSchema<C extends Collection>(collection: C): z.ZodType<StoredDocument<C>> {
  return z.object({ doc: SCHEMAS[collection], ...about }) as unknown as z.ZodType<StoredDocument<C>>;
}

function listedSchema<C extends Collection>(collection: C): z.ZodType<Listed<C>> {
  return z.intersection(HEAD_SCHEMAS[collection] as unknown as z.ZodType<Heads[C]>, z.object(about));
}

export async function request(path: string, init: RequestInit = {}): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, init);
  } catch {
    throw new ServerAway();
  }
  return answered(response);
}

/** What the server answered, where it took what it was asked; otherwise what it said is thrown. */
export async function answered(response: Response): Promise<Response> {
  if (response.ok) return response;
  const body = ErrorBody.safeParse(await response.json().catch(() => null));
  // A proxy in front of a stopped server answers in its stead, with something that isn't ours.
  if (!body.success)
    throw response.status >= 500
      ? new ServerAway()
      : new Refused(response.status, 'failed', `The server answered ${response.status}.`, {});
  const { code, message, details } = body.data.error;
  if (code === 'closing') throw new ServerAway();
  throw new Refused(response.status, code, message, details);
}

export function json(method: string, body: unknown): RequestInit {
  return { method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) };
}

/** Entries asked for at once. */
const PAGE = 500;

/**
 * All of a list, page after page: the heads of documents. `soon` hears of the first page where it isn’t all. The next
 * page is asked for before one is read, so that server and page work beside each other.
 */
export async function list<C extends Collection>(
  collection: C,
  soon: (first: readonly Listed<C>[]) => void = () => undefined,
): Promise<{ items: Listed<C>[]; skipped: SkippedRow[] }> {
  const schema = z.object({ items: z.array(listedSchema(collection)), skipped: Skipped, next: z.string().nullable() });
  const all: { items: Listed<C>[]; skipped: SkippedRow[] } = { items: [], skipped: [] };
  const page = async (after: string | null): Promise<unknown> => {
    const from = after === null ? '' : `&after=${encodeURIComponent(after)}`;
    return (await request(`/${collection}?limit=${PAGE}${from}`)).json();
  };
  for (let asked = page(null); ;) {
    const raw = await asked;
    const next = (raw as { next?: unknown }).next;
    if (typeof next === 'string') {
      asked = page(next);
      // Where this page can’t be read nobody waits for it any more.
      asked.catch(() => undefined);
    }
    const { items, skipped } = schema.parse(raw);
    all.items.push(...items);
    all.skipped.push(...skipped);
    if (typeof next !== 'string') return all;
    if (all.items.length === items.length) soon(items);
  }
}

export async function get<C extends Collection>(collection: C, id: string): Promise<StoredDocument<C>> {
  return storedSchema(collection).parse(await (await request(`/${collection}/${id}`)).json());
}

export async function save<C extends Collection>(
  collection: C,
  doc: Documents[C],
  revision: number | null,
): Promise<StoredDocument<C>> {
  return storedSchema(collection).parse(
    await (await request(`/${collection}/${doc.id}`, json('PUT', { doc, revision }))).json(),
  );
}

export async function remove(collection: Collection, id: string): Promise<void> {
  await request(`/${collection}/${id}`, { method: 'DELETE' });
}

export async function restore<C extends Collection>(collection: C, id: string): Promise<StoredDocument<C>> {
  return storedSchema(collection).parse(
    await (await request(`/${collection}/${id}/restore`, { method: 'POST' })).json(),
  );
}

const Ids = z.object({ ids: z.array(z.string()) });

export async function getBelt(): Promise<string[]> {
  return Ids.parse(await (await request('/belt')).json()).ids;
}

/** The brushes at hand, whole; one that can’t be read is left out. */
export async function beltBrushes(): Promise<StoredDocument<'brushes'>[]> {
  const { items } = z.object({ items: z.array(z.unknown()) }).parse(await (await request('/belt/brushes')).json());
  const schema = storedSchema('brushes');
  return items.map((item) => schema.safeParse(item)).flatMap(({ data }) => (data ? [data] : []));
}

export async function putBelt(ids: readonly string[]): Promise<string[]> {
  return Ids.parse(await (await request('/belt', json('PUT', { ids }))).json()).ids;
}

/** Stores bytes under their SHA-256 and returns it. */
export async function putBlob(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  const hash = Array.from(digest, (b) => b.toString(16).padStart(2, '0')).join('');
  // As a Blob: a page that sends 200 MB as bare bytes was seen to crash.
  await request(`/blobs/${hash}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: new Blob([bytes]),
  });
  return hash;
}

export async function getBlob(hash: string): Promise<ArrayBuffer> {
  return (await request(`/blobs/${hash}`)).arrayBuffer();
}

export function pictureUrl(collection: Collection, id: string, revision: number): string {
  return `/api/${collection}/${id}/picture?revision=${revision}`;
}

export function pictureOfRevision(collection: Collection, id: string, number: number): string {
  return `/api/${collection}/${id}/revisions/${number}/picture`;
}

export const SheetFile = z.object({
  blob: z.string(),
  name: z.string(),
  width: z.number(),
  height: z.number(),
  what: z.string(),
});
export type SheetFile = z.infer<typeof SheetFile>;

const HeightsSchema = AlphaSchema.pick({ blob: true, size: true, format: true, ground: true, report: true }).extend({
  relief: z.number().nullable(),
});
export type Heights = z.infer<typeof HeightsSchema>;

/** The heights that a kept picture holds, as an alpha has them. */
export async function postHeights(hash: string, name: string): Promise<Heights> {
  return HeightsSchema.parse(
    await (await request(`/sheets/${hash}/heights?name=${encodeURIComponent(name)}`, { method: 'POST' })).json(),
  );
}

const Capabilities = z.object({
  name: z.string(),
  widthMm: z.number(),
  heightMm: z.number(),
  resolutions: z.array(z.number()),
  colours: z.array(z.enum(['colour', 'grey'])),
});
export type ScannerCapabilities = z.infer<typeof Capabilities>;

export interface ScannerAt {
  address: string;
  /** The person was asked whether it may be outside of the local network. */
  outside: boolean;
}

/** What the scanner at an address can do. */
export async function getScanner({ address, outside }: ScannerAt): Promise<ScannerCapabilities> {
  const query = new URLSearchParams({ address, outside: outside ? 'yes' : 'no' });
  return Capabilities.parse(await (await request(`/scanners?${query}`)).json());
}

export interface ScanOrder extends ScannerAt {
  dpi: number;
  colour: 'colour' | 'grey';
  /** Millimetres on the glass; null is all of it. */
  area: { x: number; y: number; width: number; height: number } | null;
}

export async function beginScan({ address, outside, dpi, colour, area }: ScanOrder): Promise<string> {
  const query = new URLSearchParams({ address, outside: outside ? 'yes' : 'no', dpi: String(dpi), colour });
  if (area) for (const [key, value] of Object.entries(area)) query.set(key, String(value));
  return z.object({ id: z.string() }).parse(await (await request(`/scans?${query}`, { method: 'POST' })).json()).id;
}

const ScanState = z.object({
  bytes: z.number(),
  share: z.number().nullable(),
  page: SheetFile.nullable(),
  odd: z.string().nullable(),
  problem: z.string().nullable(),
});
export type ScanState = z.infer<typeof ScanState>;

export async function getScan(id: string): Promise<ScanState> {
  return ScanState.parse(await (await request(`/scans/${id}`)).json());
}

export async function cancelScan(id: string): Promise<void> {
  await request(`/scans/${id}`, { method: 'DELETE' });
}

const InboxState = z.object({
  folder: z.string(),
  problem: z.string().nullable(),
  files: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      bytes: z.number(),
      state: z.enum(['growing', 'whole', 'given', 'refused']),
      why: z.string().nullable(),
    }),
  ),
});
export type InboxState = z.infer<typeof InboxState>;
export type InboxFile = InboxState['files'][number];

/** What lies in the folder that other programs write into. */
export async function getInbox(): Promise<InboxState> {
  return InboxState.parse(await (await request('/inbox')).json());
}

/** A file of the inbox for this page alone. Refused when another page has it, or it has changed. */
export async function claimInboxFile({ id }: InboxFile): Promise<File> {
  const { name } = z
    .object({ name: z.string() })
    .parse(await (await request(`/inbox/${id}/claim`, { method: 'POST' })).json());
  return new File([await (await request(`/inbox/${id}/file`)).blob()], name);
}

/** What came of it: null when it was taken in, else why it was refused. */
export async function settleInboxFile({ id }: InboxFile, why: string | null): Promise<void> {
  const way = why === null ? 'taken' : `refused?why=${encodeURIComponent(why.slice(0, 1000))}`;
  await request(`/inbox/${id}/${way}`, { method: 'POST' });
}

const Missing = z.object({ missing: z.array(z.string()) });

/** From now on this browser's drafts name these; they stay with the server. Answers those that it doesn't have. */
export async function putHolds(holder: string, hashes: readonly string[]): Promise<string[]> {
  return Missing.parse(await (await request(`/holds/${holder}`, json('PUT', { hashes }))).json()).missing;
}

const Pasts = z.object({
  revisions: z.array(z.object({ revision: z.number(), savedAt: z.string(), name: z.string() })),
});
export type Past = z.infer<typeof Pasts>['revisions'][number];

/** Saves that others took the place of, the last first. */
export async function revisions(collection: Collection, id: string): Promise<Past[]> {
  return Pasts.parse(await (await request(`/${collection}/${id}/revisions`)).json()).revisions;
}

export async function revision<C extends Collection>(collection: C, id: string, number: number): Promise<Documents[C]> {
  const doc: unknown = await (await request(`/${collection}/${id}/revisions/${number}`)).json();
  return SCHEMAS[collection].parse(doc) as Documents[C];
}

export async function nameRevision(collection: Collection, id: string, number: number, name: string): Promise<void> {
  await request(`/${collection}/${id}/revisions/${number}`, json('PUT', { name }));
}

const Users = z.object({
  users: z.array(z.object({ collection: z.enum(COLLECTIONS), id: z.string(), name: z.string(), needed: z.boolean() })),
});
export type User = z.infer<typeof Users>['users'][number];

/** Who names it now: what can’t do without it, and what was only made of it or with it. */
export async function usersOf(collection: Collection, id: string): Promise<User[]> {
  return Users.parse(await (await request(`/${collection}/${id}/users`)).json()).users;
}

const Trash = z.object({
  deleted: z.array(
    z.object({
      collection: z.enum(COLLECTIONS),
      id: z.string(),
      name: z.string(),
      revision: z.number(),
      deletedAt: z.string(),
    }),
  ),
});
export type Trashed = z.infer<typeof Trash>['deleted'][number];

/** What was deleted and can be taken back, the last first. */
export async function trash(): Promise<Trashed[]> {
  return Trash.parse(await (await request('/trash')).json()).deleted;
}

const Sizes = z.object({ files: z.number(), database: z.number(), revisions: z.number(), deleted: z.number() });
export type Sizes = z.infer<typeof Sizes>;
const Cleaned = z.object({
  cleaned: z.object({ revisions: z.number(), deleted: z.number(), blobs: z.number() }),
  sizes: Sizes,
});

/** What the data folder takes. */
export async function getStorage(): Promise<Sizes> {
  return Sizes.parse(await (await request('/storage')).json());
}

export async function cleanStorage(): Promise<z.infer<typeof Cleaned>> {
  return Cleaned.parse(await (await request('/storage/clean', { method: 'POST' })).json());
}

export interface PixelWindow {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A window of a kept picture as planes 0–1, its longer side at most `side`. */
export async function getPixels(hash: string, { x, y, width, height }: PixelWindow, side: number): Promise<Raster> {
  const query = new URLSearchParams({
    x: String(x),
    y: String(y),
    width: String(width),
    height: String(height),
    side: String(Math.max(8, Math.round(side))),
  });
  const answer = await request(`/sheets/${hash}/pixels?${query}`);
  const number = (name: string): number => Number(answer.headers.get(name));
  const channels = number('X-Channels');
  const bytes = await answer.arrayBuffer();
  const floats = answer.headers.get('X-Depth') === 'float';
  const data = floats ? new Float32Array(bytes) : new Uint16Array(bytes);
  const scale = floats ? 1 : 1 / 65535;
  const planes = Array.from({ length: channels }, (_, k) => {
    const plane = new Float32Array(data.length / channels);
    for (let i = 0; i < plane.length; i++) plane[i] = data[i * channels + k] * scale;
    return plane;
  });
  return { width: number('X-Width'), height: number('X-Height'), planes };
}

export const previewUrl = (hash: string, side = 2048): string => `/api/sheets/${hash}/preview?side=${side}`;
