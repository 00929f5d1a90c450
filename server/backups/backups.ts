/**
 * Copies of everything as files of one folder: made when asked for and by themselves, checked once they are written,
 * and restored all at once or not at all. One thing goes on at a time.
 */
import { randomUUID } from 'node:crypto';
import { createReadStream, type ReadStream } from 'node:fs';
import { copyFile, mkdir, open, readdir, readFile, rename, rm, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import {
  BackupPlanSchema,
  copiesToDrop,
  copyDue,
  copyName,
  copyOf,
  LINES,
  type BackupManifest,
  type BackupPlan,
  type Copy,
  type CopyKind,
} from '#core/backup';
import { Problem } from '../problem';
import { syncFolder } from '../store/blobFiles';
import type { Arrived, PutBack, Store } from '../store/port';
import type { BackupRow } from '../studio/backupFile';
import type { Studio } from '../studio/studio';

/** Left free on the disk whatever is copied. */
const ROOM = 200 * 2 ** 20;
/** Data that is unpacked in one go. */
const BATCH = { entries: 64, bytes: 64 * 2 ** 20 };

export interface Going {
  what: 'copy' | 'check' | 'restore';
  done: number;
  of: number;
}

export interface Restored {
  /** Documents that are as they were then. */
  changed: number;
  /** Those that came since and went to the trash. */
  trashed: number;
  problems: string[];
  /** What was here before, as a copy. */
  before: string | null;
}

export class Backups {
  private going: (Going & { cancel: () => void; cancelled: boolean }) | null = null;
  private running: Promise<unknown> = Promise.resolve();
  private closed = false;
  private readonly begun: string;
  /** Counts changes, to know whether there is anything new to copy. */
  private changes = 0;
  private copied = 0;

  constructor(
    private readonly store: Store,
    private readonly studio: Studio,
    readonly folder: string,
  ) {
    this.begun = join(folder, 'begun');
    store.onChange(() => void this.changes++);
  }

  /** What a server that was killed had begun is cleared away. */
  async open(): Promise<void> {
    await rm(this.begun, { recursive: true, force: true });
    await mkdir(this.begun, { recursive: true });
  }

  async view(): Promise<{ folder: string; plan: BackupPlan; copies: Copy[]; going: Going | null }> {
    const going = this.going && { what: this.going.what, done: this.going.done, of: this.going.of };
    return { folder: this.folder, plan: await this.plan(), copies: await this.copies(), going };
  }

  /** The newest first. */
  async copies(): Promise<Copy[]> {
    const names = await readdir(this.folder);
    const found = await Promise.all(
      names.map(async (name) =>
        copyOf(
          name,
          await stat(join(this.folder, name)).then(
            ({ size }) => size,
            () => 0,
          ),
        ),
      ),
    );
    return found.filter((copy) => copy !== null).sort((a, b) => b.name.localeCompare(a.name));
  }

  async plan(): Promise<BackupPlan> {
    const text = await readFile(join(this.folder, 'plan.json'), 'utf8').catch(() => '{}');
    try {
      return BackupPlanSchema.parse(JSON.parse(text));
    } catch {
      return BackupPlanSchema.parse({});
    }
  }

  async putPlan(plan: BackupPlan): Promise<void> {
    const path = join(this.begun, randomUUID());
    await write(path, JSON.stringify(plan));
    await rename(path, join(this.folder, 'plan.json'));
    await syncFolder(this.folder);
  }

  /** Everything as it is now, written and read back. */
  make(kind: CopyKind): Promise<Copy> {
    return this.alone('copy', () => this.copy(kind));
  }

  /** A copy by itself where one is due and something changed since; whatever else goes on comes first. */
  async makeIfDue(now = new Date()): Promise<void> {
    if (this.going || this.closed) return;
    const plan = await this.plan();
    const copies = await this.copies();
    if (!copyDue(copies, plan, now) || this.copied === this.changes) return;
    if (this.going) return;
    await this.make('scheduled');
    for (const old of copiesToDrop(await this.copies(), plan)) await rm(join(this.folder, old.name), { force: true });
  }

  /** Takes over a file from elsewhere once it is found good. */
  bring(arrived: Arrived, name: string): Promise<Copy> {
    const drop = (): Promise<void> => this.store.blobs.drop(arrived);
    return this.alone('check', async () => {
      await this.studio.backupLook(arrived.path, name, arrived.bytes);
      const path = join(this.begun, randomUUID());
      // The folder may lie on another disk.
      await rename(arrived.path, path).catch(() => copyFile(arrived.path, path));
      return this.named(path, 'brought');
    }).finally(drop);
  }

  async pathOf(name: string): Promise<string> {
    if (!(await this.copies()).some((copy) => copy.name === name))
      throw new Problem(404, 'no-copy', 'That copy isn’t here any more.');
    return join(this.folder, name);
  }

  async file(name: string): Promise<{ bytes: number; stream: ReadStream }> {
    const path = await this.pathOf(name);
    return { bytes: (await stat(path)).size, stream: createReadStream(path) };
  }

  async remove(name: string): Promise<void> {
    await rm(await this.pathOf(name));
  }

  restore(name: string, others: PutBack['others']): Promise<Restored> {
    return this.alone('restore', () => this.restoreOne(name, others));
  }

  /** What can’t be cancelled any more is finished. */
  cancel(): void {
    if (!this.going) return;
    this.going.cancelled = true;
    this.going.cancel();
  }

  async close(): Promise<void> {
    this.closed = true;
    this.cancel();
    await this.running.catch(() => undefined);
  }

  private alone<T>(what: Going['what'], act: () => Promise<T>): Promise<T> {
    if (this.closed) return Promise.reject(new Problem(503, 'closing', 'The server is closing.'));
    if (this.going)
      return Promise.reject(
        new Problem(409, 'busy', 'A copy is being made or restored already. Wait until that is done.'),
      );
    this.going = { what, done: 0, of: 0, cancel: () => undefined, cancelled: false };
    const run = act().finally(() => (this.going = null));
    this.running = run;
    return run;
  }

  private check(): void {
    if (this.going?.cancelled) throw new Problem(409, 'cancelled', 'Cancelled. Nothing was changed.');
  }

  private async copy(kind: CopyKind): Promise<Copy> {
    const from = join(this.begun, randomUUID());
    const to = `${from}.zip`;
    await mkdir(from);
    const going = this.going!;
    going.cancel = () => void rm(from, { recursive: true, force: true }).catch(() => undefined);
    const state = this.changes;
    try {
      const { data, belt, bytes } = await this.spool(from);
      this.check();
      await this.refuseFull(bytes);
      going.of = bytes * 2;
      const watch = setInterval(() => {
        void stat(to).then(
          ({ size }) => (going.done = Math.min(size, bytes)),
          () => undefined,
        );
      }, 200);
      try {
        await this.studio.backUp({ to, from, madeAt: new Date().toISOString(), belt, data }, bytes);
        going.done = bytes;
        await this.studio.backupLook(to, 'The backup', bytes);
      } finally {
        clearInterval(watch);
      }
      this.check();
      const copy = await this.named(to, kind);
      this.copied = state;
      return copy;
    } catch (error) {
      this.check();
      throw error;
    } finally {
      await rm(from, { recursive: true, force: true });
      await rm(to, { force: true });
    }
  }

  /** All rows as lines of files, at one moment. */
  private async spool(from: string): Promise<{ data: BackupManifest['data']; belt: string[]; bytes: number }> {
    const documents = await open(join(from, LINES.documents), 'wx');
    const revisions = await open(join(from, LINES.revisions), 'wx');
    let belt: string[] = [];
    let data: BackupManifest['data'] = [];
    let bytes = 0;
    const into = async (file: typeof documents, lines: readonly string[]): Promise<void> => {
      this.check();
      const text = Buffer.from(lines.map((line) => `${line}\n`).join(''));
      bytes += text.length;
      await file.write(text);
    };
    try {
      await this.store.snapshot({
        documents: (lines) => into(documents, lines),
        revisions: (lines) => into(revisions, lines),
        belt: async (ids) => void (belt = ids),
        data: async (all) => void (data = all),
      });
    } finally {
      await documents.close();
      await revisions.close();
    }
    return { data, belt, bytes: bytes + data.reduce((sum, each) => sum + each.bytes, 0) };
  }

  private async refuseFull(bytes: number): Promise<void> {
    const { bavail, bsize } = await statfs(this.folder);
    if (bavail * bsize > bytes + ROOM) return;
    throw new Problem(
      507,
      'disk-full',
      `The copy needs ${Math.ceil(bytes / 2 ** 20)} MB, and the disk has not enough room. Delete old copies, or make room.`,
    );
  }

  /** Gives a file its name among the copies; two of one second are numbered by the next. */
  private async named(path: string, kind: CopyKind): Promise<Copy> {
    const taken = new Set(await readdir(this.folder));
    let at = new Date();
    while (taken.has(copyName(kind, at))) at = new Date(at.getTime() + 1000);
    const name = copyName(kind, at);
    await rename(path, join(this.folder, name));
    await syncFolder(this.folder);
    return copyOf(name, (await stat(join(this.folder, name))).size)!;
  }

  private async restoreOne(name: string, others: PutBack['others']): Promise<Restored> {
    const path = await this.pathOf(name);
    const going = this.going!;
    const { size } = await stat(path);
    const manifest = await this.studio.backupLook(path, name, size);
    this.check();
    const before = (await this.anythingHere()) ? await this.copy('before a restore') : null;
    going.cancel = () => undefined;
    const known = new Set(await this.store.blobs.renew(manifest.data.map(({ blob }) => blob)));
    const wanted = manifest.data.filter(({ blob }) => !known.has(blob));
    const rows = await this.studio.backupRows(path, name, size);
    try {
      Object.assign(going, { done: 0, of: wanted.length + rows.documents });
      for (const batch of batches(wanted)) {
        this.check();
        for (const file of await this.studio.backupData(path, name, batch)) await this.store.blobs.keep(file);
        going.done += batch.length;
      }
      this.check();
      const changes = await this.store.putBack({
        rows: () => rowsOf(rows.path),
        belt: manifest.belt,
        // What can’t be read from the copy is no reason to take away what is here.
        others: rows.problems.length > 0 ? 'keep' : others,
      });
      const trashed = changes.filter(({ revision }) => revision === null).length;
      for (const old of copiesToDrop(await this.copies(), await this.plan()))
        if (old.name !== name) await rm(join(this.folder, old.name), { force: true });
      return {
        changed: changes.length - trashed,
        trashed,
        problems: rows.problems,
        before: before?.name ?? null,
      };
    } finally {
      await rm(rows.path, { force: true });
    }
  }

  /** Base brushes come with the program. */
  private async anythingHere(): Promise<boolean> {
    const { revisions, deleted, files } = await this.store.sizes();
    if (revisions + deleted + files > 0) return true;
    const bases = new Set(await this.store.bases());
    const { items } = await this.store.list('brushes', { after: null, limit: 500 });
    return items.some(({ id }) => !bases.has(id));
  }
}

async function* rowsOf(path: string): AsyncIterable<BackupRow> {
  for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Infinity }))
    yield JSON.parse(line) as BackupRow;
}

function* batches(all: BackupManifest['data']): Iterable<BackupManifest['data']> {
  let batch: BackupManifest['data'] = [];
  let bytes = 0;
  for (const each of all) {
    if (batch.length > 0 && (batch.length >= BATCH.entries || bytes + each.bytes > BATCH.bytes)) {
      yield batch;
      batch = [];
      bytes = 0;
    }
    batch.push(each);
    bytes += each.bytes;
  }
  if (batch.length > 0) yield batch;
}

async function write(path: string, text: string): Promise<void> {
  const file = await open(path, 'wx');
  try {
    await file.write(text);
    await file.sync();
  } finally {
    await file.close();
  }
}
