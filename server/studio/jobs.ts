/** What the studio does: heavy work on stored bytes, and work on files from outside that may never end by itself. */
import type { BackupManifest } from '#core/backup';
import type { DataEntry, Taken } from '#core/packFile';
import { readStored, type AlphaHead, type PartHead } from '#core/stored';
import type { Brush, Lettering, Source } from '#core/settings';
import { BlockSchema, SOURCE_VERSION } from '#core/settings';
import type { Guess } from '#core/arrive';
import { Problem } from '../problem';
import type { Judged } from '../reading/judged';
import { BlobFiles } from '../store/blobFiles';
import type { Arrived } from '../store/port';
import { decodePicture, type Decoded, type SheetFile } from './decode';
import type { Desk } from './desk';
import type { HeightsAlpha } from './heights';
import type { Encoded, ToEncode } from './packData';
import type { BackupRows, ToBackUp } from './backupFile';
import type { Inside } from './packIn';
import type { BrushForms } from './pictures';
import { previewOf, readWindow, type PixelWindow, type Pixels } from './window';

/** What a process isn’t asked for it doesn’t load: each is a helper of one thing. */
const fonts = () => import('./fonts');
const heights = () => import('./heights');
const pictures = () => import('./pictures');
const packData = () => import('./packData');
const packIn = () => import('./packIn');
const backups = () => import('./backupFile');

/** What an alpha can be had as. */
export type AlphaFile = 'png' | 'tiff' | 'exr' | 'colours';

export type Job =
  /** A picture from outside is looked at; it is kept decoded for what is asked of it next. */
  | { kind: 'sheet'; hash: string; name: string }
  | { kind: 'window'; hash: string; name: string; window: PixelWindow }
  | { kind: 'preview'; hash: string; name: string; side: number }
  /** A picture from outside is looked at, and guessed what it is. */
  | { kind: 'arrival'; hash: string; name: string }
  /** Heights that are ready, written to a file of their own. */
  | { kind: 'heights'; hash: string; name: string; folder: string }
  /** A font from outside is read and tried. */
  | { kind: 'font'; hash: string; name: string }
  | { kind: 'brush'; brush: Brush; forms: BrushForms }
  | { kind: 'alpha'; alpha: AlphaHead }
  | { kind: 'part'; part: PartHead }
  /** A source as it is kept, of whatever version, as JSON in UTF-8. */
  | { kind: 'source'; text: Uint8Array }
  | { kind: 'file'; alpha: AlphaHead; ending: AlphaFile }
  /** Stored bytes as a pack file has them. */
  | { kind: 'packData'; wanted: ToEncode[]; folder: string }
  /** What a pack file holds; all of it is unpacked once. */
  | { kind: 'packLook'; path: string; name: string }
  | { kind: 'packPicture'; path: string; name: string; at: string }
  /** Written to files of their own. */
  | { kind: 'packTake'; path: string; name: string; wanted: DataEntry[]; folder: string }
  | { kind: 'packDocuments'; path: string; name: string; wanted: Naming[]; ids: Map<string, string> }
  | { kind: 'backUp'; wanted: ToBackUp; folder: string }
  /** All of a backup is read and compared with its checksums. */
  | { kind: 'backupLook'; path: string; name: string }
  /** Written to files of their own. */
  | { kind: 'backupData'; path: string; name: string; wanted: BackupManifest['data']; folder: string }
  | { kind: 'backupRows'; path: string; name: string; folder: string };

export type Naming = Pick<Taken, 'thing' | 'id' | 'name'>;

export interface JobResults {
  sheet: SheetFile;
  arrival: SheetFile & { guess: Guess };
  heights: HeightsAlpha & { arrived: Arrived };
  window: Pixels;
  preview: Uint8Array;
  font: null;
  brush: Uint8Array;
  alpha: Uint8Array;
  part: Uint8Array;
  source: Uint8Array;
  file: Uint8Array;
  packData: Encoded[];
  packLook: Inside;
  packPicture: Uint8Array;
  packTake: Arrived[];
  packDocuments: Judged[];
  backUp: null;
  backupLook: BackupManifest;
  backupData: Arrived[];
  backupRows: BackupRows;
}

function decoded({ blobs, recent }: Desk, hash: string, name: string): Promise<Decoded> {
  return recent.pictures.of(hash, async () => decodePicture(await blobs(hash), name));
}

function sourceOf(text: Uint8Array): Source {
  const read = readStored('sources', JSON.parse(Buffer.from(text).toString('utf8')));
  if (!read.ok) throw new Problem(422, 'unreadable', read.reason);
  return read.value;
}

export async function carryOut(job: Job, desk: Desk): Promise<JobResults[Job['kind']]> {
  const { blobs } = desk;
  switch (job.kind) {
    case 'sheet': {
      const { width, height, what } = await decoded(desk, job.hash, job.name);
      return { width, height, what };
    }
    case 'arrival': {
      const found = await decoded(desk, job.hash, job.name);
      const { width, height, what } = found;
      return { width, height, what, guess: await (await heights()).guessOf(await blobs(job.hash), job.name, found) };
    }
    case 'heights': {
      const { bytes, ...alpha } = await (await heights()).heightsOf(await blobs(job.hash), job.name);
      return { ...alpha, arrived: await new BlobFiles(job.folder).receive(one(bytes), Infinity) };
    }
    case 'window':
      return readWindow(await decoded(desk, job.hash, job.name), job.window);
    case 'preview':
      return previewOf(await decoded(desk, job.hash, job.name), job.side);
    case 'font': {
      const { letteringPicture } = await fonts();
      await letteringPicture(desk, sample(job.hash, job.name), 96).catch((error: unknown) => {
        throw unreadableFont(job.name, error);
      });
      return null;
    }
    case 'brush':
      return (await pictures()).brushPicture(desk, job.brush, job.forms);
    case 'alpha':
      return (await pictures()).alphaPicture(desk, job.alpha);
    case 'part':
      return (await pictures()).partPicture(desk, job.part);
    case 'source': {
      const source = sourceOf(job.text);
      const { sourcePicture } = await pictures();
      return sourcePicture(desk, source).catch((error: unknown) => {
        const own = source.kind === 'lettering' ? source.blocks.find((b) => b.font.kind === 'own')?.font : undefined;
        throw own?.kind === 'own' && !(error instanceof Problem) ? unreadableFont(own.name, error) : error;
      });
    }
    case 'file': {
      const { alphaPng, alphaTiff, alphaExr, alphaColours } = await pictures();
      const write = { png: alphaPng, tiff: alphaTiff, exr: alphaExr, colours: alphaColours }[job.ending];
      return write(blobs, job.alpha);
    }
    case 'packData':
      return (await packData()).encodedAll(job.wanted, blobs, job.folder);
    case 'packLook':
      return (await packIn()).lookInside(job.path, job.name);
    case 'packPicture':
      return (await packIn()).pictureInside(job.path, job.name, job.at);
    case 'packTake':
      return (await packIn()).takeData(job.path, job.name, job.wanted, job.folder);
    case 'packDocuments':
      return (await packIn()).takeDocuments(job.path, job.name, job.wanted, job.ids);
    case 'backUp':
      await (await backups()).writeBackup(job.wanted, job.folder);
      return null;
    case 'backupLook':
      return (await backups()).lookAtBackup(job.path, job.name);
    case 'backupData':
      return (await backups()).backupData(job.path, job.name, job.wanted, job.folder);
    case 'backupRows':
      return (await backups()).backupRows(job.path, job.name, job.folder);
  }
}

function sample(blob: string, name: string): Lettering {
  const block = BlockSchema.parse({
    id: '00000000-0000-4000-8000-000000000000',
    text: 'Hamburg 0123456789\n!?&',
    size: 12,
    font: { kind: 'own', blob, name },
  });
  return {
    version: SOURCE_VERSION,
    id: block.id,
    kind: 'lettering',
    card: { name: 'Sample', author: '', tags: [], notes: '' },
    blocks: [block],
  };
}

function unreadableFont(name: string, error: unknown): Problem {
  const why =
    error instanceof Error && error.message.includes(name)
      ? error.message
      : `${name} can’t be read as a font: it is broken or cut short. TTF, OTF and WOFF files can be opened.`;
  return new Problem(422, 'font', why);
}

async function* one(bytes: Uint8Array): AsyncIterable<Uint8Array> {
  yield bytes;
}
