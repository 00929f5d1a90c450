/** Opens the store and listens on the local machine. */
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { createApp } from './app';
import { Backups } from './backups/backups';
import { Inbox } from './inbox/inbox';
import { InFlight } from './inFlight';
import { tryFiles } from './namedFiles';
import { Exports } from './packs/exports';
import { Imports } from './packs/imports';
import { Pictures } from './pictures';
import { Reader } from './reading/reader';
import { Scans } from './scanner/scans';
import { seedBaseBrushes } from './seed';
import { asideIn, putBack } from './store/pglite/damage';
import { openPglite } from './store/pglite/open';
import type { Store } from './store/port';
import { Studio } from './studio/studio';
import { log } from './log';

export interface StartOptions {
  folder: string;
  template?: string | undefined;
  page: string;
  /** The folder that other programs write into; `inbox` in the data folder where it is left out. */
  inbox?: string | undefined;
  /** Where copies of everything lie; `backups` in the data folder where it is left out. */
  backups?: string | undefined;
  /** 0 takes any free port. */
  port: number;
  version: string;
  /** A damaged database is set aside and the newest copy of everything restored. */
  anew?: boolean;
  /** How long a small file from outside may keep its reader; tests wait less. */
  readSeconds?: number;
}

export interface Running {
  address: string;
  /** True when this start made the database. */
  first: boolean;
  close(): Promise<void>;
}

export async function start(options: StartOptions): Promise<Running> {
  const { folder, template, backups: copies, anew } = options;
  const aside = await asideIn(folder);
  const store: Store = await openPglite({ folder, template, backups: copies, ...(anew ? { anew } : {}) });
  const studio = new Studio(store.blobs.folder, (hash) => store.blobs.size(hash), options.readSeconds);
  const pictures = new Pictures(store, studio);
  const reader = new Reader();
  const inbox = new Inbox(options.inbox ?? join(options.folder, 'inbox'));
  const scans = new Scans(store.blobs, studio);
  const imports = new Imports(store, studio, (doc) => tryFiles(store, studio, doc));
  const packFiles = new Exports(store, studio, pictures);
  const backups = new Backups(store, studio, options.backups ?? join(options.folder, 'backups'));
  const inFlight = new InFlight();
  const stop = async (server: Server | null): Promise<void> => {
    const closed = new Promise((done) => (server ? server.close(done) : done(null)));
    // Whoever waits for work is answered that it isn't done; what is being saved is saved, and said to be.
    studio.close();
    await backups.close();
    await reader.close();
    await inbox.close();
    await scans.close();
    await Promise.race([inFlight.ended(), wait(LAST_ANSWERS_MS, null, { ref: false })]);
    server?.closeAllConnections();
    await inFlight.ended();
    await closed;
    await imports.close();
    await pictures.close();
    await store.close();
  };
  try {
    await backups.open();
    await seedBaseBrushes(store);
    if (anew && store.first) await restoreNewest(backups);
    else if (anew) log.info('The database can be read: nothing was restored');
    store.onChange(() => pictures.soon());
    const app = createApp({
      store,
      studio,
      reader,
      pictures,
      inbox,
      scans,
      imports,
      backups,
      exports: packFiles,
      inFlight,
      page: options.page,
      version: options.version,
    });
    const server = await new Promise<Server>((resolve, reject) => {
      const listening = app.listen(options.port, '127.0.0.1', () => resolve(listening));
      listening.once('error', (error: NodeJS.ErrnoException) => {
        reject(error.code === 'EADDRINUSE' ? new Error(`Port ${options.port} is taken. Set PORT to another.`) : error);
      });
    });
    const upkeep = [regularly(UPKEEP_MS, () => store.clean()), regularly(COPIES_MS, () => backups.makeIfDue())];
    inbox.watch();
    // The first page comes first.
    const warming = setTimeout(() => studio.warm(), WARM_MS).unref();
    pictures.soon();
    return {
      address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
      first: store.first,
      close: async () => {
        clearTimeout(warming);
        await Promise.all(upkeep.map((each) => each.stop()));
        await stop(server);
      },
    };
  } catch (error) {
    await stop(null);
    // A restore that failed leaves the damaged database in its place, or the next start would open an empty one.
    const made = (await asideIn(folder)).find((name) => !aside.includes(name));
    if (made) await putBack(folder, made);
    throw error;
  }
}

/** Throws a sentence where there is no copy, or the newest doesn't hold all that it says. */
async function restoreNewest(backups: Backups): Promise<void> {
  const [newest] = await backups.copies();
  if (!newest) throw new Error(`There is no backup in ${backups.folder}. The damaged database is kept as it was.`);
  const { changed, problems } = await backups.restore(newest.name, 'keep');
  log.info({ backup: newest.name, changed, problems }, 'Restored the newest backup');
}

/** For what is being answered when the server closes. */
const LAST_ANSWERS_MS = 2000;
const WARM_MS = 2000;
const FIRST_UPKEEP_MS = 10 * 60_000;
const UPKEEP_MS = 24 * 3600_000;
/** How often it is looked whether a copy is due. */
const COPIES_MS = 15 * 60_000;

/** A while after the start, when pages have said what their drafts name, and then ever again; never twice at once. */
function regularly(every: number, act: () => Promise<unknown>): { stop(): Promise<void> } {
  let running: Promise<unknown> = Promise.resolve();
  const run = (): void => {
    running = running.then(act).catch((error: unknown) => log.error(error, 'Upkeep failed'));
  };
  const first = setTimeout(run, FIRST_UPKEEP_MS);
  const again = setInterval(run, every);
  first.unref();
  again.unref();
  return {
    async stop() {
      clearTimeout(first);
      clearInterval(again);
      await running;
    },
  };
}
