/**
 * Reads pack files: what one holds, its pictures, its data and its documents. Nothing is written where an entry says;
 * every entry is counted as it is unpacked, and its SHA-256 compared.
 */
import { createHash, webcrypto } from 'node:crypto';
import {
  entriesOf,
  judgeDocuments,
  judgeEntries,
  MANIFEST_PATH,
  MOST_DATA_BYTES,
  MOST_ENTRIES,
  MOST_MANIFEST_BYTES,
  readManifest,
  renamed,
  type DataEntry,
  type EntryProblem,
  type Manifest,
  type Taken,
  type Thing,
} from '#core/packFile';
import { readStored, type Collection } from '#core/stored';
import { Problem } from '../problem';
import { judged, type Judged } from '../reading/judged';
import { BlobFiles } from '../store/blobFiles';
import type { Arrived } from '../store/port';
import { beside } from './beside';
import { decodeData } from './packData';
import { jsonOf, openZip, type OpenedZip, type ZipItem } from './zipFile';

/** What a pack file holds; keys of things are digests. */
export interface Inside {
  manifest: Pick<Manifest, 'name' | 'pack'>;
  things: Thing[];
  data: DataEntry[];
  problems: EntryProblem[];
}

/** Bytes of the entries that are read, or decoded, at once; a small one counts as more than it is. */
const MOST_BESIDE = 8 * 2 ** 20;
const LEAST = 2 ** 21;

const refuse = (sentence: string): Problem => new Problem(422, 'pack-file', sentence);

const opened = <T>(path: string, name: string, act: OpenedZip<T>): Promise<T> =>
  openZip(path, { name, kind: 'a pack', most: MOST_ENTRIES, refuse }, act);

export const digest = (text: string): string => createHash('sha256').update(text).digest('hex');

async function manifestIn(entries: ReadonlyMap<string, ZipItem>, name: string): Promise<Manifest> {
  const entry = entries.get(MANIFEST_PATH);
  if (!entry) throw refuse(`“${name}” isn’t a pack of brushes: it has no ${MANIFEST_PATH}.`);
  if (entry.encrypted) throw refuse(`“${name}” is locked with a password. Unlock it first.`);
  let value: unknown;
  try {
    value = jsonOf(await entry.whole(MOST_MANIFEST_BYTES));
  } catch {
    throw refuse(`“${name}” can’t be read: its ${MANIFEST_PATH} is damaged.`);
  }
  const read = readManifest(value);
  if (!read.ok) throw refuse(`“${name}” can’t be taken. ${read.reason}`);
  return read.value;
}

/** All of it is unpacked once: what is damaged is known before anything is taken. */
export function lookInside(path: string, name: string): Promise<Inside> {
  return opened(path, name, async (entries, all) => {
    const manifest = await manifestIn(entries, name);
    const found = all.map(({ filename, uncompressedSize, directory, encrypted }) => ({
      path: filename,
      bytes: uncompressedSize,
      folder: directory,
      encrypted,
    }));
    const { good, problems } = judgeEntries(manifest, found);
    const documents = new Set(manifest.documents.map(({ path: at }) => at));
    const texts = new Map<string, unknown>();
    const sound = new Set<string>();
    const wanted = new Map(entriesOf(manifest).flatMap((one) => (good.has(one.path) ? [[one.path, one]] : [])));
    const looked = await beside(
      [...wanted.values()],
      { most: MOST_BESIDE, weight: ({ bytes }) => Math.max(bytes, LEAST) },
      async ({ path: at, bytes, sha256 }) => {
        const item = entries.get(at)!;
        try {
          if ((await checksum(item, bytes)) !== sha256) return false;
          if (documents.has(at)) texts.set(at, jsonOf(await item.whole(bytes, false)));
          return true;
        } catch {
          return false;
        }
      },
    );
    [...wanted.keys()].forEach((at, i) => {
      if (looked[i].status === 'fulfilled' && looked[i].value) sound.add(at);
      else problems.push({ path: at, problem: `“${at}” is damaged: it isn’t what was written. It is left out.` });
    });
    const judgedAll = judgeDocuments(manifest, texts, sound);
    return {
      manifest: { name: manifest.name, pack: manifest.pack },
      things: judgedAll.things.map((thing) => ({ ...thing, key: digest(thing.key) })),
      data: manifest.data.filter(({ path: at }) => sound.has(at)),
      problems: [...problems, ...judgedAll.problems],
    };
  });
}

/** Counted beside other work where it is small enough to be held. */
async function checksum(item: ZipItem, bytes: number): Promise<string> {
  if (bytes <= MOST_BESIDE) {
    const all = await item.whole(bytes, false);
    return Buffer.from(await webcrypto.subtle.digest('SHA-256', all as Uint8Array<ArrayBuffer>)).toString('hex');
  }
  const hash = createHash('sha256');
  await item.pieces(bytes, (piece) => void hash.update(piece), false);
  return hash.digest('hex');
}

export function pictureInside(path: string, name: string, at: string): Promise<Uint8Array> {
  return opened(path, name, async (entries) => {
    const entry = entries.get(at);
    if (!entry) throw new Problem(404, 'no-picture', 'There is no such picture in the pack.');
    const bytes = await entry.whole(MOST_DATA_BYTES);
    if (bytes[0] !== 0x89 || bytes[1] !== 0x50) throw new Problem(404, 'no-picture', 'That picture isn’t a PNG.');
    return bytes;
  });
}

/** Decodes data into files that have no name yet. What isn’t what its entry says is refused. */
export function takeData(path: string, name: string, wanted: readonly DataEntry[], folder: string): Promise<Arrived[]> {
  const files = new BlobFiles(folder);
  return opened(path, name, async (entries) => {
    const one = async ({ path: at, bytes, kind, blob }: DataEntry): Promise<Arrived> => {
      const entry = entries.get(at);
      const data = entry && (await decodeData(await entry.whole(bytes, false), kind, at));
      const arrived = data && (await files.receiveWhole(data));
      if (arrived?.hash === blob) return arrived;
      if (arrived) await files.drop(arrived);
      throw refuse(`“${at}” holds something else than the pack says. Nothing was taken.`);
    };
    const done = await beside(wanted, { most: MOST_BESIDE, weight: ({ bytes }) => Math.max(bytes, LEAST) }, one);
    const out = done.flatMap((each) => (each.status === 'fulfilled' ? [each.value] : []));
    const failed = done.find((each) => each.status === 'rejected');
    if (failed) {
      for (const arrived of out) await files.drop(arrived);
      throw failed.reason;
    }
    return out;
  });
}

/** Documents under the ids and names that they get here, as they will be kept. */
export function takeDocuments(
  path: string,
  name: string,
  wanted: readonly Pick<Taken, 'thing' | 'id' | 'name'>[],
  ids: ReadonlyMap<string, string>,
): Promise<Judged[]> {
  return opened(path, name, async (entries) => {
    const out: Judged[] = [];
    for (const { thing, ...to } of wanted) {
      const { document } = jsonOf(await entries.get(thing.path)!.whole(MOST_DATA_BYTES)) as { document: unknown };
      const read = readStored(thing.collection, document);
      if (!read.ok) throw refuse(`“${thing.name}” can’t be taken. ${read.reason}`);
      out.push(judged<Collection>(thing.collection, renamed(thing.collection, read.value, to, ids)));
    }
    return out;
  });
}
