/**
 * Pack files that came: looked into, then taken, all of what was chosen or nothing. Bytes are stored first; documents
 * are saved in one transaction, so that a server that is killed shows nothing half-taken.
 */
import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import {
  keyed,
  meet,
  packTaken,
  taking,
  TRAVELLING,
  type Choice,
  type DataEntry,
  type Here,
  type Meeting,
  type Taken,
} from '#core/packFile';
import type { Pack } from '#core/settings';
import type { Collection } from '#core/stored';
import { Problem } from '../problem';
import { judged, type Judged } from '../reading/judged';
import type { Arrived, Store } from '../store/port';
import type { Inside } from '../studio/packIn';
import type { Studio } from '../studio/studio';
import { everyHead, hereOf } from './here';

/** So many are kept open at once; the oldest is let go. */
const MOST_OPEN = 8;
/** Entries, and their bytes, that are unpacked in one go. */
const BATCH = { entries: 48, bytes: 64 * 2 ** 20 };
const DOCUMENTS_AT_ONCE = 200;
/** Something was saved in another window in the moment between looking and saving. */
const ATTEMPTS = 3;

interface Import {
  name: string;
  arrived: Arrived;
  inside: Inside;
  taking: { done: number; of: number; cancelled: boolean } | null;
}

export interface ImportView {
  id: string;
  file: string;
  name: string;
  pack: Pack | null;
  /** Whether the pack itself is kept here already. */
  packHere: boolean;
  things: {
    key: string;
    collection: string;
    id: string;
    name: string;
    /** As it will be called here. */
    becomes: string;
    maker: string;
    licence: string;
    meets: Meeting['meets'];
    /** What is kept here. */
    existing: string | null;
    replaceable: boolean;
    picture: boolean;
  }[];
  problems: Inside['problems'];
}

export interface Came {
  collection: Collection;
  id: string;
  name: string;
  /** The revision that it took the place of; null where it is new. */
  before: number | null;
}

export interface What {
  came: Came[];
  pack: Pick<Came, 'id' | 'before'> | null;
}

export class Imports {
  private readonly all = new Map<string, Import>();

  constructor(
    private readonly store: Store,
    private readonly studio: Studio,
    /** Files that sources name must be readable. */
    private readonly tryFiles: (doc: Judged) => Promise<void>,
  ) {}

  /** Takes over the file; it is let go of where it is no pack. */
  async look(arrived: Arrived, name: string): Promise<ImportView> {
    const inside = await this.studio.packLook(arrived.path, name, arrived.bytes).catch(async (error: unknown) => {
      await this.store.blobs.drop(arrived);
      throw error;
    });
    const id = randomUUID();
    this.all.set(id, { name, arrived, inside, taking: null });
    for (const [old, one] of this.all) {
      if (this.all.size <= MOST_OPEN) break;
      if (!one.taking) await this.drop(old);
    }
    return this.view(id);
  }

  async view(id: string): Promise<ImportView> {
    const { name, inside } = this.find(id);
    const here = await hereOf(this.store, inside.things);
    const { pack } = inside.manifest;
    return {
      id,
      file: name,
      name: inside.manifest.name,
      pack,
      packHere: pack !== null && (await this.storedPack(pack.id)) !== null,
      things: meet(inside.things, here).map(({ thing, meets, existing, name: becomes }) => ({
        key: keyed(thing),
        collection: thing.collection,
        id: thing.id,
        name: thing.name,
        becomes,
        maker: thing.maker,
        licence: thing.licence,
        meets,
        existing: existing?.name ?? null,
        replaceable: meets === 'other' && existing !== null && !existing.base,
        picture: thing.picture !== null,
      })),
      problems: inside.problems,
    };
  }

  async picture(id: string, brush: string): Promise<Uint8Array> {
    const { name, arrived, inside } = this.find(id);
    const at = inside.things.find((thing) => thing.collection === 'brushes' && thing.id === brush)?.picture;
    if (!at) throw new Problem(404, 'no-picture', 'The pack has no picture of this brush.');
    return this.studio.packPicture(arrived.path, name, at);
  }

  progress(id: string): { done: number; of: number } | null {
    const { taking: now } = this.find(id);
    return now && { done: now.done, of: now.of };
  }

  /** While it is being taken it is cancelled, and stays to be taken another time. */
  async drop(id: string): Promise<void> {
    const one = this.find(id);
    if (one.taking) {
      one.taking.cancelled = true;
      return;
    }
    this.all.delete(id);
    await this.store.blobs.drop(one.arrived);
  }

  async close(): Promise<void> {
    for (const [id, one] of this.all) {
      if (one.taking) one.taking.cancelled = true;
      this.all.delete(id);
      await this.store.blobs.drop(one.arrived);
    }
  }

  /** Answers what came. */
  async take(id: string, choices: Record<string, Choice>, rack: string): Promise<What> {
    const one = this.find(id);
    if (one.taking) throw new Problem(409, 'busy', 'This pack is being taken already.');
    const now = (one.taking = { done: 0, of: 0, cancelled: false });
    try {
      for (let attempt = 1; ; attempt++) {
        try {
          return await this.takeOnce(one, now, choices, rack);
        } catch (error) {
          if (!(error instanceof Problem && error.status === 409) || now.cancelled || attempt === ATTEMPTS) throw error;
        }
      }
    } finally {
      one.taking = null;
    }
  }

  private async takeOnce(
    { name, arrived, inside }: Import,
    now: NonNullable<Import['taking']>,
    choices: Record<string, Choice>,
    rack: string,
  ): Promise<What> {
    const here = await hereOf(this.store, inside.things);
    const meetings = meet(inside.things, here);
    const { taken, ids } = taking(meetings, choices, here, randomUUID);
    const wanted = await this.missing(taken, inside.data);
    Object.assign(now, { done: 0, of: wanted.length + taken.length });
    const check = (): void => {
      if (now.cancelled) throw new Problem(409, 'cancelled', 'Cancelled. Nothing was taken.');
    };
    for (const batch of batches(wanted)) {
      check();
      for (const file of await this.studio.packTake(arrived.path, name, batch)) await this.store.blobs.keep(file);
      now.done += batch.length;
    }
    const docs: { doc: Judged; revision: number | null }[] = [];
    for (let at = 0; at < taken.length; at += DOCUMENTS_AT_ONCE) {
      check();
      const some = taken.slice(at, at + DOCUMENTS_AT_ONCE);
      const read = await this.studio.packDocuments(arrived.path, name, some, ids);
      docs.push(...read.map((doc, i) => ({ doc, revision: some[i].revision })));
    }
    for (const { doc } of docs) await this.tryFiles(doc);
    const pack = await this.packDocument(inside.manifest.pack, ids, here, rack);
    check();
    await this.store.transaction(async (verbs) => {
      const place = (doc: Judged): number => TRAVELLING.indexOf(doc.collection as (typeof TRAVELLING)[number]);
      for (const { doc, revision } of [...docs].sort((a, b) => place(a.doc) - place(b.doc))) {
        await verbs.save(doc, { revision });
        now.done++;
      }
      if (pack) await verbs.save(judged('packs', pack.doc), { revision: pack.revision });
    });
    return {
      came: taken.map(({ thing, id, name: called, revision }) => ({
        collection: thing.collection,
        id,
        name: called,
        before: revision,
      })),
      pack: pack && { id: pack.doc.id, before: pack.revision },
    };
  }

  /** Data of what is taken that isn’t stored here already. */
  private async missing(taken: readonly Taken[], data: readonly DataEntry[]): Promise<DataEntry[]> {
    const paths = new Set(taken.flatMap(({ thing }) => thing.data));
    const wanted = data.filter(({ path }) => paths.has(path));
    const known = new Set(await this.store.blobs.renew(wanted.map(({ blob }) => blob)));
    return wanted.filter(({ blob }) => !known.has(blob));
  }

  private async storedPack(id: string): Promise<{ doc: Pack; revision: number } | null> {
    return this.store.document('packs', id).catch((error: unknown) => {
      if (error instanceof Problem && error.status === 404) return null;
      throw error;
    });
  }

  /** Null where none of its brushes is here. */
  private async packDocument(
    pack: Pack | null,
    ids: ReadonlyMap<string, string>,
    here: Here,
    rack: string,
  ): Promise<{ doc: Pack; revision: number | null } | null> {
    if (
      !pack ||
      !pack.groups.some(({ brushes }) => brushes.some((id) => ids.has(keyed({ collection: 'brushes', id }))))
    )
      return null;
    const existing = await this.storedPack(pack.id);
    const doc = packTaken(pack, ids, existing?.doc ?? null);
    if (existing) return isDeepStrictEqual(doc, existing.doc) ? null : { doc, revision: existing.revision };
    const names = new Set((await everyHead(this.store, 'packs')).map(({ card }) => card.name.toLowerCase()));
    let { name } = pack.card;
    for (let n = 2; names.has(name.toLowerCase()); n++) name = `${pack.card.name.slice(0, 74)} ${n}`;
    const id = here.gone.has(pack.id) ? randomUUID() : pack.id;
    return { doc: { ...doc, id, rack, card: { ...doc.card, name } }, revision: null };
  }

  private find(id: string): Import {
    const found = this.all.get(id);
    if (!found) throw new Problem(404, 'no-import', 'That pack isn’t open here any more. Open its file again.');
    return found;
  }
}

function batches(all: readonly DataEntry[]): DataEntry[][] {
  const out: DataEntry[][] = [];
  let bytes = Infinity;
  for (const entry of all) {
    const last = out.at(-1);
    if (!last || last.length >= BATCH.entries || bytes + entry.bytes > BATCH.bytes) {
      out.push([entry]);
      bytes = entry.bytes;
    } else {
      last.push(entry);
      bytes += entry.bytes;
    }
  }
  return out;
}
