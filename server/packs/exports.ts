/** Pack files that are written as they are fetched: nothing is put together beforehand. */
import { createHash, randomUUID } from 'node:crypto';
import { readFile, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import type { ReadableStream as WebStream } from 'node:stream/web';
import { configure, Uint8ArrayReader, ZipWriter, type ZipWriterAddDataOptions } from '@zip.js/zip.js';
import {
  MANIFEST_PATH,
  PACK_FILE_FORMAT,
  PACK_FILE_VERSION,
  planPack,
  type Manifest,
  type PackPlan,
  type PlannedData,
} from '#core/packFile';
import { sharePage, type SharedBrush, type SharedPack } from '#core/pack';
import type { Brush } from '#core/settings';
import { withPngText } from '#core/formats';
import { Problem } from '../problem';
import type { Pictures } from '../pictures';
import type { Store } from '../store/port';
import type { Encoded } from '../studio/packData';
import type { Studio } from '../studio/studio';
import { contentsOf, type Wish } from './contents';
import { log } from '../log';

/** Each piece that goes through costs something of its own. */
configure({ chunkSize: 2 ** 20 });

const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1);

/** The same pack is the same bytes, whenever it is written. */
const DATE = new Date(2000, 0, 1);
/** Plans that nobody fetched are let go. */
const MOST_PLANS = 16;

interface Export {
  plan: PackPlan;
  done: number;
  of: number;
  state: 'pending' | 'writing' | 'written' | 'failed';
  problem: string | null;
  cancelled: boolean;
}

export type ExportState = Pick<Export, 'done' | 'of' | 'state' | 'problem'>;

export class Exports {
  private readonly all = new Map<string, Export>();

  constructor(
    private readonly store: Store,
    private readonly studio: Studio,
    private readonly pictures: Pictures,
  ) {}

  /** Plans it; what can’t be written is told now. */
  async plan(wish: Wish): Promise<{ id: string; name: string; brushes: number }> {
    const plan = planPack(await contentsOf(this.store, wish));
    const id = randomUUID();
    const of = plan.documents.length + plan.data.length + plan.pictures.length;
    this.all.set(id, { plan, done: 0, of, state: 'pending', problem: null, cancelled: false });
    for (const old of this.all.keys()) {
      if (this.all.size <= MOST_PLANS) break;
      if (this.all.get(old)!.state !== 'writing') this.all.delete(old);
    }
    return { id, name: plan.name, brushes: plan.pictures.length };
  }

  state(id: string): ExportState {
    const { done, of, state, problem } = this.find(id);
    return { done, of, state, problem };
  }

  nameOf(id: string): string {
    return this.find(id).plan.name;
  }

  cancel(id: string): void {
    this.find(id).cancelled = true;
  }

  /** Written as it is read. */
  stream(id: string): Readable {
    const one = this.find(id);
    const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>(
      {},
      { highWaterMark: 4 },
      { highWaterMark: 4 },
    );
    Object.assign(one, { state: 'writing', done: 0, problem: null });
    this.write(one, writable).then(
      () => (one.state = 'written'),
      (error: unknown) => {
        one.state = 'failed';
        one.problem = error instanceof Problem ? error.message : 'The pack could not be written to its end.';
        if (!(error instanceof Problem) && !one.cancelled && !isGone(error))
          log.error(error, 'A pack could not be written');
        // Whoever fetches it sees that it isn’t whole.
        void writable.abort(error).catch(() => undefined);
      },
    );
    return Readable.fromWeb(readable as WebStream);
  }

  /** The pack as a page with the file inside, as it is read. */
  page(id: string): Readable {
    return Readable.from(this.pageOf(this.find(id), id));
  }

  private async *pageOf({ plan }: Export, id: string): AsyncIterable<string> {
    const { before, after } = sharePage(await this.shared(plan));
    yield before;
    let rest: Buffer = Buffer.alloc(0);
    for await (const piece of this.stream(id) as AsyncIterable<Uint8Array>) {
      // Three bytes are four signs: what is over waits for the next piece.
      const all = Buffer.concat([rest, piece]);
      const whole = all.length - (all.length % 3);
      yield all.toString('base64', 0, whole);
      rest = all.subarray(whole);
    }
    yield rest.toString('base64') + after;
  }

  private async shared({ name, pack, pictures, documents }: PackPlan): Promise<SharedPack> {
    const brushes = new Map<string, SharedBrush>();
    for (const each of pictures) {
      const { text } = documents.find(({ id }) => id === each.brush)!;
      const { card, touch, stroke } = (JSON.parse(text) as { document: Brush }).document;
      const { picture } = await this.picture(each);
      brushes.set(each.brush, {
        name: card.name,
        does: `${capital(touch.action)} · ${capital(stroke.type)}`,
        notes: card.notes,
        picture: Buffer.from(picture).toString('base64'),
      });
    }
    const groups = pack?.groups ?? [{ name: '', brushes: [...brushes.keys()] }];
    return {
      name,
      maker: pack?.card.author ?? '',
      site: pack?.site ?? '',
      licence: pack?.licence ?? '',
      notes: pack?.card.notes ?? '',
      groups: groups.map((group) => ({
        name: group.name,
        brushes: group.brushes.flatMap((one) => brushes.get(one) ?? []),
      })),
    };
  }

  private find(id: string): Export {
    const found = this.all.get(id);
    if (!found) throw new Problem(404, 'no-export', 'That pack file isn’t being written any more. Write it again.');
    return found;
  }

  private async write(one: Export, writable: WritableStream<Uint8Array>): Promise<void> {
    const { plan } = one;
    const zip = new ZipWriter(writable, { useWebWorkers: false, lastModDate: DATE, extendedTimestamp: false });
    const manifest: Manifest = {
      format: PACK_FILE_FORMAT,
      version: PACK_FILE_VERSION,
      name: plan.name,
      pack: plan.pack,
      documents: [],
      data: [],
      pictures: [],
    };
    const add = async (
      path: string,
      bytes: Uint8Array,
      how: ZipWriterAddDataOptions,
      sha256?: string,
    ): Promise<Entry> => {
      if (one.cancelled) throw new Problem(409, 'cancelled', 'Cancelled.');
      await zip.add(path, new Uint8ArrayReader(bytes), how);
      one.done++;
      return { path, bytes: bytes.length, sha256: sha256 ?? createHash('sha256').update(bytes).digest('hex') };
    };
    for (const { path, collection, id, name, provenance, text } of plan.documents) {
      const entry = await add(path, Buffer.from(text), SQUEEZED);
      manifest.documents.push({ collection, id, name, provenance, ...entry });
    }
    for await (const { path, picture, brush } of ahead(plan.pictures, (each) => this.picture(each)))
      manifest.pictures.push({ brush, ...(await add(path, picture, AS_IS)) });
    const batches = ahead(
      inBatches(plan.data),
      (some) => this.data(some),
      (unread) => this.drop(unread),
    );
    for await (const batch of batches) {
      try {
        for (const { data, kind, path: from, ...sums } of batch) {
          const { blob, provenance } = data;
          const bytes = await readFile(from);
          const path = kind === 'bytes' ? `data/${blob}` : data.path;
          const squeezed = kind === 'bytes' || kind === 'mesh';
          const entry = await add(path, bytes, squeezed ? SQUEEZED : checked(bytes, sums.crc32), sums.sha256);
          manifest.data.push({ kind, blob, provenance, ...entry });
        }
      } finally {
        // Whether it was written or whoever fetched it went away in the middle.
        await this.drop(batch);
      }
    }
    await zip.add(MANIFEST_PATH, new Uint8ArrayReader(Buffer.from(`${JSON.stringify(manifest, null, 1)}\n`)), SQUEEZED);
    await zip.close();
  }

  /** What was encoded for this file alone. */
  private async drop(batch: readonly (Encoded & { data: PlannedData })[]): Promise<void> {
    for (const { path, data } of batch) if (path !== this.store.blobs.path(data.blob)) await rm(path, { force: true });
  }

  private async picture({ path, brush, title, provenance }: PackPlan['pictures'][number]): Promise<Picture> {
    const { maker, licence, site } = provenance;
    const says = { Title: title, Author: maker, Copyright: licence, Source: site };
    const known = Object.fromEntries(Object.entries(says).filter(([, value]) => value !== ''));
    return { path, brush, picture: withPngText(await this.pictures.of('brushes', brush), known) };
  }

  private async data(some: PlannedData[]): Promise<(Encoded & { data: PlannedData })[]> {
    const [first] = some;
    // As they are they needn’t go to another process.
    const all: Encoded[] =
      first.kind === 'bytes'
        ? [{ kind: 'bytes', path: this.store.blobs.path(first.blob), sha256: first.blob, crc32: 0 }]
        : await this.studio.packData(some);
    return all.map((encoded, i) => ({ ...encoded, data: some[i] }));
  }
}

/** Pictures that are encoded in one go. */
const BATCH = { entries: 32, pixels: 2 ** 25 };

function inBatches(all: readonly PlannedData[]): PlannedData[][] {
  const out: PlannedData[][] = [];
  let pixels = 0;
  for (const data of all) {
    const own = (data.size ?? 2048) ** 2;
    const last = out.at(-1);
    const alone = data.kind === 'bytes' || last?.[0].kind === 'bytes';
    if (!last || alone || last.length >= BATCH.entries || pixels + own > BATCH.pixels) {
      out.push([data]);
      pixels = own;
    } else {
      last.push(data);
      pixels += own;
    }
  }
  return out;
}

type Entry = Pick<Manifest['data'][number], 'path' | 'bytes' | 'sha256'>;
interface Picture {
  path: string;
  brush: string;
  picture: Uint8Array;
}

const SQUEEZED: ZipWriterAddDataOptions = { level: 6 };
/** It is packed already. */
const AS_IS: ZipWriterAddDataOptions = { level: 0 };
/** Its checksum is known: it isn’t counted once more. */
const checked = (bytes: Uint8Array, sum: number): ZipWriterAddDataOptions => ({
  passThrough: true,
  compressionMethod: 0,
  uncompressedSize: bytes.length,
  crc32: sum,
});

/** Made while the one before is written, in order; not more than two are at hand. One that nobody takes is dropped. */
async function* ahead<T, R>(
  all: readonly T[],
  make: (one: T) => Promise<R>,
  drop: (one: R) => Promise<void> = () => Promise.resolve(),
): AsyncGenerator<R> {
  let next = all.length > 0 ? made(make(all[0])) : null;
  try {
    for (let i = 0; i < all.length; i++) {
      const now = await next!;
      next = i + 1 < all.length ? made(make(all[i + 1])) : null;
      if (now.error !== undefined) throw now.error;
      yield now.value!;
    }
  } finally {
    const unread = await next;
    if (unread?.value !== undefined) await drop(unread.value);
  }
}

/** One that fails while nobody waits for it yet is no failure of the server. */
function made<R>(work: Promise<R>): Promise<{ value?: R; error?: unknown }> {
  return work.then(
    (value) => ({ value }),
    (error: unknown) => ({ error: error ?? new Error('It failed.') }),
  );
}

/** Whoever fetched it went away; a stream that is let go without a word gives no reason. */
function isGone(error: unknown): boolean {
  if (error === undefined || error === null) return true;
  return ['ERR_STREAM_PREMATURE_CLOSE', 'ERR_INVALID_STATE', 'ABORT_ERR'].includes(
    (error as { code?: string }).code ?? '',
  );
}
