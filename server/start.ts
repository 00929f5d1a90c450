/** Opens the database and listens on the local machine. */
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createApp } from './app';
import { openDatabase } from './database';
import { sweepBlobs } from './queries/blobs';
import { seedBaseBrushes } from './seed';

export interface StartOptions {
  folder: string;
  template?: string | undefined;
  page: string;
  /** 0 takes any free port. */
  port: number;
  version: string;
}

export interface Running {
  address: string;
  /** True when this start made the database. */
  first: boolean;
  close(): Promise<void>;
}

export async function start(options: StartOptions): Promise<Running> {
  const database = await openDatabase({ folder: options.folder, template: options.template });
  try {
    await sweepBlobs(database.db);
    await seedBaseBrushes(database.db);
    const app = createApp({ db: database.db, page: options.page, version: options.version });
    const server = await new Promise<Server>((resolve, reject) => {
      const listening = app.listen(options.port, '127.0.0.1', () => resolve(listening));
      listening.once('error', (error: NodeJS.ErrnoException) => {
        reject(error.code === 'EADDRINUSE' ? new Error(`Port ${options.port} is taken. Set PORT to another.`) : error);
      });
    });
    return {
      address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
      first: database.first,
      close: async () => {
        server.closeAllConnections();
        await new Promise((resolve) => server.close(resolve));
        await database.close();
      },
    };
  } catch (error) {
    await database.close();
    throw error;
  }
}
