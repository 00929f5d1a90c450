/**
 * Packs the server and its helpers into files of plain JavaScript, which start in half the time that their sources
 * take.
 */
import { cp, readdir, rm, stat } from 'node:fs/promises';
import { resolve } from 'node:path';
import * as esbuild from 'esbuild';
import { root } from './root.mjs';

const build = resolve(root, 'build');
await esbuild.build({
  entryPoints: {
    server: resolve(root, 'server/main.ts'),
    store: resolve(root, 'server/store/pglite/worker.ts'),
    studio: resolve(root, 'server/studio/child.ts'),
    reading: resolve(root, 'server/reading/worker.ts'),
    devices: resolve(root, 'demo/devices/main.ts'),
  },
  outdir: build,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  // What a helper isn’t asked for it doesn’t load.
  splitting: true,
  chunkNames: 'shared-[hash]',
  platform: 'node',
  format: 'esm',
  packages: 'external',
  logLevel: 'error',
});
// A server that still runs may ask for parts of the build before: they go after a day.
for (const name of (await readdir(build)).filter((one) => one.startsWith('shared-'))) {
  const { mtimeMs } = await stat(resolve(build, name));
  if (Date.now() - mtimeMs > 86_400_000) await rm(resolve(build, name));
}
await cp(resolve(root, 'server/store/pglite/sql'), resolve(build, 'sql'), { recursive: true });
