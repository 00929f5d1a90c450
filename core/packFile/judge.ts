/**
 * Looks at a pack file before anything of it is taken: what is listed and there, what is there and not listed, and what
 * can’t be taken, each problem under the entry it is about.
 */
import { brushesOf } from '#core/settings';
import { readStored, referencesOf, type Documents } from '#core/stored';
import { MANIFEST_PATH, type DataEntry, type DocumentEntry, type Manifest, type Travelling } from './manifest';
import { alphaKey, brushKey, paletteKey, partKey, sourceKey } from './sameness';

export interface ZipEntry {
  path: string;
  /** As the ZIP says, unpacked. */
  bytes: number;
  folder: boolean;
  encrypted: boolean;
}

export interface EntryProblem {
  path: string;
  /** A sentence. */
  problem: string;
}

/** Bytes that an entry may have, unpacked. */
export const MOST_MANIFEST_BYTES = 64 * 2 ** 20;
export const MOST_DOCUMENT_BYTES = 24 * 2 ** 20;
export const MOST_PICTURE_BYTES = 4 * 2 ** 20;
export const MOST_DATA_BYTES = 320 * 2 ** 20;
export const MOST_ENTRIES = 200_000;
/** So many problems are told one by one. */
const MOST_TOLD = 200;

/** What of the listed entries is there, and whole as far as the ZIP’s own list says. */
export function judgeEntries(
  manifest: Manifest,
  found: readonly ZipEntry[],
): { good: Set<string>; problems: EntryProblem[] } {
  const problems: EntryProblem[] = [];
  const counts = new Map<string, number>();
  for (const { path } of found) counts.set(path, (counts.get(path) ?? 0) + 1);
  const byPath = new Map(found.map((entry) => [entry.path, entry]));
  const listed = new Map<string, number>();
  const good = new Set<string>();
  for (const { path, bytes, most } of entriesOf(manifest)) {
    const entry = byPath.get(path);
    listed.set(path, (listed.get(path) ?? 0) + 1);
    const problem = !entry
      ? 'is listed, but isn’t in the file.'
      : counts.get(path)! > 1
        ? 'is in the file twice.'
        : listed.get(path)! > 1
          ? 'is listed twice.'
          : leadsOutside(path)
            ? 'has a path that leads out of the pack.'
            : entry.folder
              ? 'is a folder where a file is listed.'
              : entry.encrypted
                ? 'is locked with a password.'
                : entry.bytes !== bytes
                  ? `has ${entry.bytes} bytes; ${bytes} are listed.`
                  : bytes > most
                    ? `is larger than ${most >> 20} MiB.`
                    : null;
    if (problem) {
      problems.push({ path, problem: `“${path}” ${problem}` });
      good.delete(path);
    } else good.add(path);
  }
  for (const path of counts.keys()) {
    const entry = byPath.get(path)!;
    if (listed.has(path) || path === MANIFEST_PATH || entry.folder) continue;
    const why = leadsOutside(path) ? 'has a path that leads out of the pack' : 'isn’t listed';
    problems.push({ path, problem: `“${path}” ${why}; it is left alone.` });
  }
  return { good, problems: told(problems) };
}

function told(problems: EntryProblem[]): EntryProblem[] {
  const left = problems.length - MOST_TOLD;
  return left > 0 ? [...problems.slice(0, MOST_TOLD), { path: '', problem: `And ${left} more like these.` }] : problems;
}

export function entriesOf({
  documents,
  data,
  pictures,
}: Manifest): { path: string; bytes: number; sha256: string; most: number }[] {
  return [
    ...documents.map((entry) => ({ ...entry, most: MOST_DOCUMENT_BYTES })),
    ...data.map((entry) => ({ ...entry, most: MOST_DATA_BYTES })),
    ...pictures.map((entry) => ({ ...entry, most: MOST_PICTURE_BYTES })),
  ];
}

/** Nothing is ever written where a path says; one that tries is told. */
export function leadsOutside(path: string): boolean {
  return (
    /^[\\/]|^[a-z]:|\\|[\u0000-\u001f]/i.test(path) || path.split('/').some((name) => name === '..' || name === '.')
  );
}

export interface Thing {
  path: string;
  collection: Travelling;
  id: string;
  name: string;
  maker: string;
  licence: string;
  /** The same for the same thing. */
  key: string;
  /** Entries of the data that it names. */
  data: string[];
  /** Other things of the pack that it names. */
  names: { collection: Travelling; id: string; needed: boolean }[];
  /** Entry of its picture. */
  picture: string | null;
}

/**
 * What can be taken. `texts` are the entries of documents that are whole, parsed; `sound` the entries that are whole.
 */
export function judgeDocuments(
  manifest: Manifest,
  texts: ReadonlyMap<string, unknown>,
  sound: ReadonlySet<string>,
): { things: Thing[]; problems: EntryProblem[] } {
  const problems: EntryProblem[] = [];
  const data = new Map(manifest.data.filter(({ path }) => sound.has(path)).map((entry) => [entry.blob, entry]));
  const pictures = new Map(manifest.pictures.filter(({ path }) => sound.has(path)).map((one) => [one.brush, one.path]));
  const read = new Map<string, Read>();
  for (const entry of manifest.documents) {
    if (!texts.has(entry.path)) continue;
    const found = documentIn(entry, texts.get(entry.path), data);
    if (typeof found === 'string') problems.push({ path: entry.path, problem: `“${entry.name}”: ${found}` });
    else read.set(keyed(entry), found);
  }
  dropWithout(read, problems);
  const keys = new Map<string, string>();
  const keyOf = (collection: Travelling, id: string): string => keys.get(keyed({ collection, id })) ?? id;
  const things = [...read.values()]
    .sort((a, b) => Number(a.entry.collection === 'brushes') - Number(b.entry.collection === 'brushes'))
    .map(({ entry, doc, blobs, names }): Thing => {
      const key = keyFor(entry.collection, doc, keyOf);
      keys.set(keyed(entry), key);
      const { path, collection, id, provenance } = entry;
      return {
        path,
        collection,
        id,
        name: doc.card.name,
        maker: doc.card.author || provenance.maker,
        licence: provenance.licence,
        key,
        data: blobs,
        names,
        picture: pictures.get(id) ?? null,
      };
    });
  return { things: inPackOrder(things, manifest), problems: told(problems) };
}

interface Read {
  entry: DocumentEntry;
  doc: Documents[Travelling];
  blobs: string[];
  names: Thing['names'];
}

export const keyed = ({ collection, id }: { collection: string; id: string }): string => `${collection} ${id}`;

/** A sentence where it can’t be taken. */
function documentIn(entry: DocumentEntry, value: unknown, data: ReadonlyMap<string, DataEntry>): Read | string {
  const { document } = (value ?? {}) as { document?: unknown };
  const found = readStored(entry.collection, document);
  if (!found.ok) return found.reason;
  if (found.value.id !== entry.id) return 'its id isn’t the one that is listed.';
  const references = referencesOf(entry.collection, found.value);
  const missing = references.blobs.filter(({ hash }) => !data.has(hash));
  if (missing.length > 0)
    return `its ${entry.collection === 'alphas' ? 'picture' : 'data'} isn’t in the file, or is damaged.`;
  return {
    entry,
    doc: found.value,
    blobs: references.blobs.map(({ hash }) => data.get(hash)!.path),
    names: references.documents as Thing['names'],
  };
}

/** What can’t do without something that isn’t there can’t be taken either, and what needs that in turn. */
function dropWithout(read: Map<string, Read>, problems: EntryProblem[]): void {
  for (let again = true; again;) {
    again = false;
    for (const [key, { entry, doc, names }] of read) {
      const lacks = names.find((name) => name.needed && !read.has(keyed(name)));
      if (!lacks) continue;
      read.delete(key);
      again = true;
      const what = lacks.collection === 'parts' ? 'a part' : 'an alpha';
      problems.push({
        path: entry.path,
        problem: `“${doc.card.name}”: it needs ${what} that isn’t in the file, or is damaged.`,
      });
    }
  }
}

function keyFor(
  collection: Travelling,
  doc: Documents[Travelling],
  keyOf: (collection: Travelling, id: string) => string,
): string {
  switch (collection) {
    case 'alphas':
      return alphaKey(doc as Documents['alphas']);
    case 'parts':
      return partKey(doc as Documents['parts']);
    case 'palettes':
      return paletteKey(doc as Documents['palettes']);
    case 'brushes':
      return brushKey(doc as Documents['brushes'], keyOf);
    case 'sources':
      return sourceKey(doc as Documents['sources']);
  }
}

function inPackOrder(things: Thing[], { pack }: Manifest): Thing[] {
  const order = new Map(pack ? brushesOf(pack).map((id, i) => [id, i]) : []);
  const place = ({ collection, id }: Thing): number => (collection === 'brushes' ? (order.get(id) ?? 1e9) : -1);
  return things.sort((a, b) => place(a) - place(b));
}
