/**
 * What JSON is read as: requests from outside, and documents from the store. Large ones are read in a thread of their
 * own.
 */
import { z } from 'zod';
import { BackupPlanSchema, type BackupPlan } from '#core/backup';
import type { Choice } from '#core/packFile';
import { readStored, SINGULAR, type Collection } from '#core/stored';
import { BlobHashSchema, MOST_IN_PACK } from '#core/settings';
import type { Wish } from '../packs/contents';
import { asProblem, Problem } from '../problem';
import { judged, type Judged } from './judged';
import { refuseUnwieldy } from './unwieldy';

export type Wanted =
  | { kind: 'belt' }
  | { kind: 'holds' }
  | { kind: 'revisionName' }
  /** How often a backup is made. */
  | { kind: 'backupPlan' }
  /** Which pack, or which brushes, are to be written as a pack file. */
  | { kind: 'packWish' }
  /** What of a pack file is taken. */
  | { kind: 'packChoices' }
  /** A document to be saved under this id. */
  | { kind: 'save'; collection: Collection; id: string }
  /** A document as it is kept, of whatever version. */
  | { kind: 'stored'; collection: Collection; name: string };

export interface Readings {
  belt: { ids: string[] };
  holds: { hashes: string[] };
  revisionName: { name: string };
  backupPlan: BackupPlan;
  packWish: Wish;
  packChoices: { choices: Record<string, Choice>; rack: string };
  save: Judged & { revision: number | null };
  /** The document in the newest version, as JSON, UTF-8. */
  stored: Uint8Array;
}

const BeltBody = z.object(
  {
    ids: z
      .array(z.uuid('The belt holds ids of brushes.'), 'The belt is a list of ids.')
      .max(200, 'The belt holds at most 200 brushes.'),
  },
  'The belt is a list of ids.',
);
const HoldsBody = z.object(
  { hashes: z.array(BlobHashSchema, 'What drafts name is a list.').max(5000, 'At most 5000 can be held at once.') },
  'What drafts name is a list.',
);
const RevisionNameBody = z.object(
  { name: z.string().trim().max(80, 'A name may have at most 80 characters.') },
  'A revision’s name is text.',
);
const Ids = z.array(z.uuid('Brushes and palettes are named by their ids.')).max(MOST_IN_PACK);
const PackWishBody = z.object(
  {
    pack: z.uuid().nullable().default(null),
    brushes: Ids.default([]),
    name: z.string().trim().min(1).max(80, 'A name may have at most 80 characters.').default('Brushes'),
    recipes: z.boolean().default(true),
    sources: z.boolean().default(false),
    palettes: Ids.default([]),
  },
  'What is written is a pack, or brushes.',
);
const PackChoicesBody = z.object(
  {
    choices: z.record(z.string().max(60), z.enum(['take', 'replace', 'leave'])).default({}),
    rack: z.string().trim().max(80, 'A rack’s name may have at most 80 characters.').default(''),
  },
  'What is taken is chosen thing by thing.',
);
const SaveBody = z.object(
  {
    doc: z.unknown(),
    revision: z
      .number('The revision must be a number, or null.')
      .int('A revision is a whole number.')
      .positive('Revisions begin at 1.')
      .nullable(),
  },
  'A save needs the document and the revision it was made on.',
);

/** Of UTF-8. Throws a Problem with a sentence. */
export function read<K extends Wanted['kind']>(wanted: Extract<Wanted, { kind: K }>, bytes: Uint8Array): Readings[K] {
  try {
    if (wanted.kind !== 'stored') refuseUnwieldy(bytes);
    return readAs(
      wanted,
      Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('utf8'),
    ) as Readings[K];
  } catch (error) {
    throw asProblem(error);
  }
}

function readAs(wanted: Wanted, text: string): Readings[Wanted['kind']] {
  switch (wanted.kind) {
    case 'belt':
      return BeltBody.parse(parsed(text));
    case 'revisionName':
      return RevisionNameBody.parse(parsed(text));
    case 'backupPlan':
      return BackupPlanSchema.parse(parsed(text));
    case 'packWish':
      return PackWishBody.parse(parsed(text));
    case 'packChoices':
      return PackChoicesBody.parse(parsed(text));
    case 'holds':
      return HoldsBody.parse(parsed(text));
    case 'stored': {
      const found = readStored(wanted.collection, JSON.parse(text));
      if (!found.ok) throw new Problem(422, 'unreadable', `“${wanted.name}” can’t be opened. ${found.reason}`);
      return new TextEncoder().encode(JSON.stringify(found.value));
    }
    case 'save': {
      const { collection, id } = wanted;
      const body = SaveBody.parse(parsed(text));
      const found = readStored(collection, body.doc);
      if (!found.ok) throw new Problem(422, 'invalid', found.reason);
      if (found.value.id !== id)
        throw new Problem(422, 'invalid', `The ${SINGULAR[collection]}’s id is not the one in the address.`);
      return { ...judged(collection, found.value), revision: body.revision };
    }
  }
}

function parsed(text: string): unknown {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Problem(400, 'bad-request', 'The request could not be read: it isn’t valid JSON.');
  }
  if (/\\u(?:0000|d[89a-f][0-9a-f]{2})/i.test(text)) refuseUnstorable(value, []);
  return value;
}

/** Text that no database takes: U+0000, and halves of a pair. */
function refuseUnstorable(value: unknown, path: readonly (string | number)[]): void {
  if (typeof value === 'string') {
    if (value.includes('\0') || !(value as string & { isWellFormed(): boolean }).isWellFormed()) {
      throw new Problem(
        422,
        'invalid',
        `${path.length ? `“${path.join(' › ')}”` : 'The text'} holds a character that can’t be kept: a null, or half of one. Type it again.`,
      );
    }
  } else if (Array.isArray(value)) value.forEach((v, i) => refuseUnstorable(v, [...path, i + 1]));
  else if (typeof value === 'object' && value !== null) {
    for (const [key, v] of Object.entries(value)) {
      refuseUnstorable(key, path);
      refuseUnstorable(v, [...path, key]);
    }
  }
}
