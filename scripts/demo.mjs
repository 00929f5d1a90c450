/**
 * `npm run demo`: installs, builds, starts with the demo data, prints the address. Ctrl-C closes the database cleanly.
 */
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { bin, install, root, run } from './run.mjs';

await install();
console.log('Building the page…');
if (await run(bin('vite'), ['build', '--logLevel', 'warn'])) process.exit(1);
if (await run(process.execPath, ['scripts/server.mjs'])) process.exit(1);
if (!existsSync(resolve(root, 'build/demo-data'))) {
  console.log('Sculpting the demo data (half a minute, once)…');
  if (await run(bin('tsx'), ['demo/build.ts'])) process.exit(1);
}
const server = spawn(process.execPath, ['build/server.mjs'], { cwd: root, stdio: 'inherit' });
// A flatbed and a 3D scanner that aren't there, so that both can be tried.
const devices = spawn(process.execPath, ['build/devices.mjs'], { cwd: root, stdio: 'inherit' });
// Ctrl-C reaches the server too; it ends by itself when the database is closed.
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', () => devices.kill());
server.on('exit', (code) => process.exit(code ?? 0));
