/**
 * Compiles the loops of dabs and filters to WebAssembly, into modules that core imports; does nothing when they are up
 * to date.
 */
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { root } from './root.mjs';

/** `shared` where other threads see the memory; what isn't is copied in and out faster. */
const ROOMS = [
  { room: 'core/sculpt', shared: true },
  { room: 'core/filter', shared: true },
  { room: 'core/paint', shared: false },
];
const FLAGS = [
  '-O3',
  '--noAssert',
  '--runtime',
  'stub',
  '--importMemory',
  '--initialMemory',
  '1',
  '--maximumMemory',
  '65536',
  '--enable',
  'bulk-memory',
  '--enable',
  'simd',
  '--use',
  'abort=',
];

export async function compileLoops() {
  for (const room of ROOMS) await compileRoom(room);
}

async function compileRoom({ room, shared }) {
  const flags = shared ? [...FLAGS, '--sharedMemory', '--enable', 'threads'] : FLAGS;
  const folder = resolve(root, room, 'assembly');
  const target = resolve(root, room, 'loops.generated.ts');
  const files = readdirSync(folder)
    .filter((name) => name.endsWith('.ts'))
    .sort();
  const sources = new Map(files.map((name) => [name, readFileSync(resolve(folder, name), 'utf8')]));
  const stamp = createHash('sha256')
    .update(JSON.stringify([...sources, flags]))
    .digest('hex');
  if (existsSync(target) && readFileSync(target, 'utf8').includes(stamp)) return;
  const asc = await import('assemblyscript/asc');
  let wasm = null;
  const { error, stderr } = await asc.main(['index.ts', '--outFile', 'loops.wasm', ...flags], {
    readFile: (name) => sources.get(name) ?? null,
    writeFile: (name, data) => {
      if (name.endsWith('.wasm')) wasm = data;
    },
    listFiles: () => [],
  });
  if (error || !wasm) throw new Error(`The loops of ${room} can't be compiled.\n${stderr.toString()}`);
  const text = Buffer.from(wasm).toString('base64');
  writeFileSync(
    target,
    `/** Made from assembly/ by \`npm run loops\`; ${stamp}. */\nexport const LOOPS = '${text}';\n`,
  );
}

if (process.argv[1] === resolve(root, 'scripts/loops.mjs')) await compileLoops();
