/** `npm run dev`: the server and the page, both following changes. */
import { spawn } from 'node:child_process';
import { bin, install, root } from './run.mjs';

await install();
const children = [
  spawn(bin('tsx'), ['watch', 'server/main.ts'], { cwd: root, stdio: 'inherit' }),
  spawn(bin('vite'), [], { cwd: root, stdio: 'inherit' }),
];
for (const child of children) child.on('exit', () => children.forEach((c) => c.kill('SIGTERM')));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => children.forEach((c) => c.kill(signal)));
