/** Opens the database and listens on the local machine. */
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { createApp } from './app';
import { openDatabase } from './database';
import { InFlight } from './inFlight';
import { Pictures } from './pictures';
import { sizeOfBlob } from './queries/blobs';
import { Reader } from './reading/reader';
import { seedBaseBrushes } from './seed';
import { Studio } from './studio/studio';
import { cleanUp } from './upkeep';

export interface StartOptions {
  folder: string;
  template?: string | undefined;
  page: string;
  /** 0 takes any free port. */
  port: number;
  version: string;
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
  const database = await openDatabase({ folder: options.folder, template: options.template });
  const { db, files, databaseFolder } = database;
  const studio = new Studio(files.folder, (hash) => sizeOfBlob(db, hash), options.readSeconds);
  const pictures = new Pictures(db, studio);
  const reader = new Reader();
  const inFlight = new InFlight();
  const stop = async (server: Server | null): Promise<void> => {
    const closed = new Promise((done) => (server ? server.close(done) : done(null)));
    // Whoever waits for work is answered that it isn't done; what is being saved is saved, and said to be.
    studio.close();
    await reader.close();
    await Promise.race([inFlight.ended(), wait(LAST_ANSWERS_MS, null, { ref: false })]);
    server?.closeAllConnections();
    await inFlight.ended();
    await closed;
    await pictures.close();
    await database.close();
  };
  try {
    await seedBaseBrushes(db);
    const app = createApp({
      db,
      files,
      studio,
      reader,
      pictures,
      databaseFolder,
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
    const upkeep = keepTidy(() => cleanUp(db, files));
    studio.warm();
    pictures.soon();
    return {
      address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
      first: database.first,
      close: async () => {
        await upkeep.stop();
        await stop(server);
      },
    };
  } catch (error) {
    await stop(null);
    throw error;
  }
}

/** For what is being answered when the server closes. */
const LAST_ANSWERS_MS = 2000;
const FIRST_UPKEEP_MS = 10 * 60_000;
const UPKEEP_MS = 24 * 3600_000;

/** A while after the start, when pages have said what their drafts name, and then once a day. */
function keepTidy(clean: () => Promise<unknown>): { stop(): Promise<void> } {
  let running: Promise<unknown> = Promise.resolve();
  const run = (): void => {
    running = clean().catch((error: unknown) => console.error(error));
  };
  const first = setTimeout(run, FIRST_UPKEEP_MS);
  const daily = setInterval(run, UPKEEP_MS);
  first.unref();
  daily.unref();
  return {
    async stop() {
      clearTimeout(first);
      clearInterval(daily);
      await running;
    },
  };
}
