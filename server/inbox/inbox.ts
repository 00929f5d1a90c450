/**
 * The inbox: a folder that scanners, cameras and other programs write into. It is looked at again and again, since
 * notices of changes don't come from every kind of drive. What a page took in goes to "taken" inside it, so that
 * nothing is lost and nothing comes twice.
 */
import { mkdir, readdir, rename, stat } from 'node:fs/promises';
import { basename, dirname, extname, join, relative, sep } from 'node:path';
import { Problem } from '../problem';
import { InboxArrivals, type InboxFile, type Outcome, type SeenFile } from './arrivals';

const LOOK_MS = 1000;
const TAKEN = 'taken';
const MOST_FILES = 1000;
const MOST_DEPTH = 4;
const PICTURES = ['png', 'jpg', 'jpeg', 'webp', 'tif', 'tiff', 'exr', 'svg'];
const MESHES = ['obj', 'ply', 'stl', 'glb'];
const MOST_BYTES = { picture: 208 * 2 ** 20, mesh: 600 * 2 ** 20 };
/** Written by programs beside what they mean, or while they write it. */
const UNFINISHED = /^[.~]|~$|\.(part|partial|tmp|temp|crdownload|download)$/i;

export interface InboxState {
  folder: string;
  /** Why the folder can’t be looked at; null when it can. */
  problem: string | null;
  files: InboxFile[];
}

export class Inbox {
  private readonly arrivals = new InboxArrivals(refusalOf);
  private problem: string | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private looking: Promise<void> = Promise.resolve();
  private closed = false;

  constructor(
    readonly folder: string,
    private readonly now: () => number = Date.now,
  ) {}

  /** Looks until it is closed. */
  watch(): void {
    this.looking = this.look().finally(() => {
      if (this.closed) return;
      this.timer = setTimeout(() => this.watch(), LOOK_MS);
      this.timer.unref();
    });
  }

  async look(): Promise<void> {
    try {
      await mkdir(this.folder, { recursive: true });
      const found: SeenFile[] = [];
      await listed(this.folder, this.folder, 0, found);
      this.arrivals.look(found, this.now());
      this.problem =
        found.length >= MOST_FILES
          ? `The inbox holds more than ${MOST_FILES} files; the first ${MOST_FILES} are taken. Clear it out: ${this.folder}.`
          : null;
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      this.problem = `The inbox can’t be read: ${WHY[code ?? ''] ?? (error as Error).message}. It should be at ${this.folder}; MOLDSTAMP_INBOX says where.`;
      this.arrivals.look([], this.now());
    }
  }

  state(): InboxState {
    return { folder: this.folder, problem: this.problem, files: this.arrivals.list(this.now()) };
  }

  /** Gives a file to one page; throws when another has it, or it isn’t whole. */
  claim(id: string): { name: string; bytes: number } {
    const file = this.arrivals.claim(id, this.now());
    if (!file)
      throw new Problem(409, 'inbox-taken', 'This file isn’t to be had: another page takes it in, or it has changed.');
    return { name: basename(file.path), bytes: file.bytes };
  }

  /** Where a file lies that was claimed. */
  pathOf(id: string): { path: string; bytes: number } {
    const file = this.arrivals.given(id);
    if (!file) throw new Problem(404, 'inbox-gone', 'This file isn’t in the inbox any more, or has changed since.');
    return { path: join(this.folder, file.path), bytes: file.bytes };
  }

  /** What came of it: taken in, it goes to "taken"; refused, it stays and the reason is shown. */
  async settle(id: string, outcome: Outcome): Promise<void> {
    const file = this.arrivals.settle(id, outcome);
    if (!file || !outcome.ok) return;
    try {
      await moveInto(join(this.folder, TAKEN, dirname(file.path)), join(this.folder, file.path));
    } catch (error) {
      // It was taken in all the same, and as long as this server runs it isn't taken again.
      const { code } = error as NodeJS.ErrnoException;
      this.problem = `“${file.path}” was taken in, but can’t be moved to “${TAKEN}”: ${WHY[code ?? ''] ?? (error as Error).message}.`;
    }
  }

  async close(): Promise<void> {
    this.closed = true;
    clearTimeout(this.timer);
    await this.looking;
  }
}

const WHY: Record<string, string> = {
  EACCES: 'this server may not read or write there',
  EPERM: 'this server may not read or write there',
  EROFS: 'it can’t be written to',
  ENOTDIR: 'there is a file where a folder should be',
  EEXIST: 'there is a file where a folder should be',
  ENOSPC: 'the drive is full',
  EIO: 'the drive doesn’t answer',
};

async function listed(root: string, folder: string, depth: number, out: SeenFile[]): Promise<void> {
  const entries = await readdir(folder, { withFileTypes: true });
  for (const entry of entries.sort((a, b) => (a.name < b.name ? -1 : 1))) {
    if (out.length >= MOST_FILES) return;
    if (UNFINISHED.test(entry.name)) continue;
    const path = join(folder, entry.name);
    // Links could lead out of the inbox.
    if (entry.isDirectory()) {
      if (depth < MOST_DEPTH && !(depth === 0 && entry.name === TAKEN)) await listed(root, path, depth + 1, out);
    } else if (entry.isFile()) {
      // Gone since the folder was read, it isn't there.
      const facts = await stat(path).catch(() => null);
      if (facts)
        out.push({ path: relative(root, path).split(sep).join('/'), bytes: facts.size, changed: facts.mtimeMs });
    }
  }
}

function refusalOf({ path, bytes }: SeenFile): string | null {
  const ending = extname(path).slice(1).toLowerCase();
  const kind = PICTURES.includes(ending) ? 'picture' : MESHES.includes(ending) ? 'mesh' : null;
  if (!kind)
    return `${path} is neither a picture nor a mesh: PNG, JPEG, WebP, TIFF, EXR, SVG, OBJ, PLY, STL and GLB can be opened.`;
  const most = MOST_BYTES[kind];
  return bytes > most
    ? `${path} has ${Math.round(bytes / 2 ** 20)} MB; a ${kind} may have at most ${most / 2 ** 20} MB.`
    : null;
}

/** Under its own name, or with a number where that is taken. */
async function moveInto(folder: string, path: string): Promise<void> {
  await mkdir(folder, { recursive: true });
  const ending = extname(path);
  const stem = basename(path, ending);
  for (let n = 1; ; n++) {
    const to = join(folder, n === 1 ? `${stem}${ending}` : `${stem} ${n}${ending}`);
    if (
      await stat(to).then(
        () => true,
        () => false,
      )
    )
      continue;
    await rename(path, to);
    return;
  }
}
