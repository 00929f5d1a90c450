/**
 * Packs the server and its helpers into files of plain JavaScript, which start in half the time that their sources
 * take.
 */
import { cp } from 'node:fs/promises';
import { resolve } from 'node:path';
import { build } from 'esbuild';
import { root } from './root.mjs';

await build({
  entryPoints: {
    server: resolve(root, 'server/main.ts'),
    store: resolve(root, 'server/store/pglite/worker.ts'),
    studio: resolve(root, 'server/studio/child.ts'),
    reading: resolve(root, 'server/reading/worker.ts'),
    devices: resolve(root, 'demo/devices/main.ts'),
  },
  outdir: resolve(root, 'build'),
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  logLevel: 'error',
});
await cp(resolve(root, 'server/store/pglite/sql'), resolve(root, 'build/sql'), { recursive: true });
