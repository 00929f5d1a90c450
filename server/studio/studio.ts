/**
 * The studio: processes of their own for work that is heavy or that files from outside could keep from ending. Files
 * from outside have one process, pictures of what is kept another, so that neither waits for the other.
 */
import { join } from 'node:path';
import type { BackupManifest } from '#core/backup';
import type { DataEntry } from '#core/packFile';
import type { AlphaHead, SourceHead, PartHead } from '#core/stored';
import type { Brush } from '#core/settings';
import { Problem } from '../problem';
import type { BackupRows, ToBackUp } from './backupFile';
import type { SheetFile } from './decode';
import type { Judged } from '../reading/judged';
import type { AlphaFile, JobResults, Naming } from './jobs';
import { Lane, type Limits } from './lane';
import type { ToEncode } from './packData';
import type { Inside } from './packIn';
import type { BrushForms } from './pictures';
import type { Arrived } from '../store/port';
import type { PixelWindow, Pixels } from './window';

/** Small files are read in far less; larger ones are given more. */
const READ_SECONDS = 4;
const READ_SECONDS_A_MB = 1;
const READ_MB = 900;
const READ_MB_A_MB = 60;
const MOST_READ_MB = 6000;
const DRAW: Omit<Limits, 'refusal'> = { seconds: 30, megabytes: 3000 };
const WRITE: Omit<Limits, 'refusal'> = { seconds: 120, megabytes: 4000 };

export class Studio {
  private readonly outside: Lane;
  private readonly inside: Lane;
  /** Pack files, which take long: nothing else waits for them. */
  private readonly packing: Lane;
  /** Backups, which take longer. */
  private readonly copying: Lane;

  /** `folder` holds the stored files; `sizeOf` answers how large one is. */
  constructor(
    private readonly folder: string,
    private readonly sizeOf: (hash: string) => Promise<number>,
    private readonly readSeconds = READ_SECONDS,
  ) {
    this.outside = new Lane(folder);
    this.inside = new Lane(folder);
    this.packing = new Lane(folder);
    this.copying = new Lane(folder);
  }

  /** Starts ahead of the first job. */
  warm(): void {
    this.inside.warm();
  }

  /** Looks at a picture that isn't stored yet. Throws a Problem with a sentence that names it. */
  lookAt({ hash, bytes, path }: Arrived, name: string): Promise<SheetFile> {
    return this.outside.run({ kind: 'sheet', hash, name }, this.reading(bytes, unread(name)), { [hash]: path });
  }

  /** Looks at a picture that isn't stored yet, and guesses what it is. */
  arrival({ hash, bytes, path }: Arrived, name: string): Promise<JobResults['arrival']> {
    return this.outside.run({ kind: 'arrival', hash, name }, this.reading(bytes, unread(name), 2), { [hash]: path });
  }

  /** The heights of a stored picture, as a file that has no name yet. */
  async heights(hash: string, name: string): Promise<JobResults['heights']> {
    return this.outside.run(
      { kind: 'heights', hash, name, folder: this.folder },
      this.reading(await this.sizeOf(hash), unread(name), 2),
    );
  }

  async sheet(hash: string, name: string): Promise<SheetFile> {
    return this.outside.run({ kind: 'sheet', hash, name }, this.reading(await this.sizeOf(hash), unread(name)));
  }

  async window(hash: string, name: string, window: PixelWindow): Promise<Pixels> {
    return this.outside.run(
      { kind: 'window', hash, name, window },
      this.reading(await this.sizeOf(hash), unread(name), 2),
    );
  }

  async preview(hash: string, name: string, side: number): Promise<Uint8Array> {
    return this.outside.run(
      { kind: 'preview', hash, name, side },
      this.reading(await this.sizeOf(hash), unread(name), 2),
    );
  }

  /** Reads and tries a font that isn't stored yet. */
  async tryFont({ hash, bytes, path }: Arrived, name: string): Promise<void> {
    await this.outside.run({ kind: 'font', hash, name }, this.reading(bytes, brokenFont(name)), { [hash]: path });
  }

  async font(hash: string, name: string): Promise<void> {
    await this.outside.run({ kind: 'font', hash, name }, this.reading(await this.sizeOf(hash), brokenFont(name)));
  }

  brush(brush: Brush, forms: BrushForms): Promise<Uint8Array> {
    return this.inside.run({ kind: 'brush', brush, forms }, drawing(brush.card.name));
  }

  alpha(alpha: AlphaHead): Promise<Uint8Array> {
    return this.inside.run({ kind: 'alpha', alpha }, drawing(alpha.card.name));
  }

  part(part: PartHead): Promise<Uint8Array> {
    return this.inside.run({ kind: 'part', part }, drawing(part.card.name));
  }

  /** `text` is the document as it is kept: only the process that draws it reads it. */
  source({ kind, card }: SourceHead, text: Uint8Array): Promise<Uint8Array> {
    // Sheets and lettering hold files from outside.
    const lane = kind === 'sheet' || kind === 'lettering' ? this.outside : this.inside;
    return lane.run({ kind: 'source', text }, drawing(card.name));
  }

  file(alpha: AlphaHead, ending: AlphaFile): Promise<Uint8Array> {
    const refusal = new Problem(
      503,
      'too-slow',
      `“${alpha.card.name}” could not be written in time. Try again when less is going on.`,
    );
    return this.inside.run({ kind: 'file', alpha, ending }, { ...WRITE, refusal });
  }

  /** Stored bytes as a pack file has them. */
  packData(wanted: ToEncode[]): Promise<JobResults['packData']> {
    const refusal = new Problem(
      503,
      'too-slow',
      `“${wanted[0]?.title}” could not be written in time. Try again later.`,
    );
    return this.packing.run({ kind: 'packData', wanted, folder: join(this.folder, 'begun') }, { ...WRITE, refusal });
  }

  /** `bytes` is the size of the file. */
  packLook(path: string, name: string, bytes: number): Promise<Inside> {
    return this.packing.run({ kind: 'packLook', path, name }, unpacking(name, bytes));
  }

  packPicture(path: string, name: string, at: string): Promise<Uint8Array> {
    return this.inside.run({ kind: 'packPicture', path, name, at }, unpacking(name, 0));
  }

  packTake(path: string, name: string, wanted: DataEntry[]): Promise<JobResults['packTake']> {
    const bytes = wanted.reduce((sum, entry) => sum + entry.bytes, 0);
    return this.packing.run({ kind: 'packTake', path, name, wanted, folder: this.folder }, unpacking(name, bytes * 4));
  }

  packDocuments(path: string, name: string, wanted: Naming[], ids: Map<string, string>): Promise<Judged[]> {
    const bytes = wanted.length * 2 ** 17;
    return this.packing.run({ kind: 'packDocuments', path, name, wanted, ids }, unpacking(name, bytes));
  }

  /** `bytes` is about what it will take. */
  async backUp(wanted: ToBackUp, bytes: number): Promise<void> {
    await this.copying.run({ kind: 'backUp', wanted, folder: this.folder }, copying('The backup', bytes));
  }

  backupLook(path: string, name: string, bytes: number): Promise<BackupManifest> {
    return this.copying.run({ kind: 'backupLook', path, name }, copying(`“${name}”`, bytes));
  }

  backupData(path: string, name: string, wanted: BackupManifest['data']): Promise<Arrived[]> {
    const bytes = wanted.reduce((sum, each) => sum + each.bytes, 0);
    return this.copying.run(
      { kind: 'backupData', path, name, wanted, folder: this.folder },
      copying(`“${name}”`, bytes),
    );
  }

  backupRows(path: string, name: string, bytes: number): Promise<BackupRows> {
    return this.copying.run({ kind: 'backupRows', path, name, folder: this.folder }, copying(`“${name}”`, bytes));
  }

  private reading(bytes: number, refusal: Problem, times = 1): Limits {
    const mb = bytes / 2 ** 20;
    return {
      seconds: (this.readSeconds + READ_SECONDS_A_MB * mb) * times,
      megabytes: Math.min(MOST_READ_MB, READ_MB + READ_MB_A_MB * mb),
      refusal,
    };
  }

  close(): void {
    this.outside.close();
    this.inside.close();
    this.packing.close();
    this.copying.close();
  }
}

function drawing(name: string): Limits {
  return { ...DRAW, refusal: new Problem(503, 'no-picture', `The picture of “${name}” could not be drawn in time.`) };
}

/** A pack is unpacked at some megabytes a second at the least. */
const UNPACK_MB_A_SECOND = 6;

function unpacking(name: string, bytes: number): Limits {
  const refusal = new Problem(
    422,
    'pack-file',
    `“${name}” can’t be taken: unpacking it takes more time or memory than a pack of its size may. Nothing was taken.`,
  );
  return { seconds: 20 + bytes / 2 ** 20 / UNPACK_MB_A_SECOND, megabytes: 1500, refusal };
}

function copying(what: string, bytes: number): Limits {
  const refusal = new Problem(
    503,
    'too-slow',
    `${what} could not be read or written in time, or takes more memory than a backup may. Nothing was changed.`,
  );
  return { seconds: 60 + bytes / 2 ** 20 / UNPACK_MB_A_SECOND, megabytes: 2500, refusal };
}

function unread(name: string): Problem {
  return new Problem(
    422,
    'picture',
    `${name} can’t be read: reading it takes more time or memory than a file of its size may. It is damaged; save it again from where it came from, as PNG.`,
  );
}

function brokenFont(name: string): Problem {
  return new Problem(
    422,
    'font',
    `${name} can’t be read as a font: it is broken. TTF, OTF and WOFF files can be opened.`,
  );
}
