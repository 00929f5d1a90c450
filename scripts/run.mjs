/** What the commands share: running a step, installing packages when they are missing. */
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { resolve } from 'node:path';
import { root } from './root.mjs';

export { root };
export const bin = (name) => resolve(root, 'node_modules/.bin', name);

/** Runs a command in the project and returns its exit code; one that hasn't ended after `mostMinutes` is ended. */
export function run(command, args, env = {}, mostMinutes = Infinity) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
    const late =
      Number.isFinite(mostMinutes) &&
      setTimeout(() => {
        console.error(`This took longer than ${mostMinutes} minutes and was ended.`);
        child.kill('SIGKILL');
      }, mostMinutes * 60_000);
    child.once('error', fail);
    child.once('exit', (code) => {
      clearTimeout(late);
      done(code ?? 1);
    });
  });
}

/** Runs a command beside others: what it says is printed when it has ended, all in one piece. */
export function runAside(name, command, args, env = {}) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    });
    const said = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => said.push(chunk));
    child.once('error', fail);
    child.once('close', (code) => {
      process.stdout.write(`\n== ${name}\n${Buffer.concat(said).toString()}`);
      done(code ?? 1);
    });
  });
}

/** Installs the packages of the lock file unless they are there, and compiles the loops. */
export async function install() {
  await packages();
  await (await import('./loops.mjs')).compileLoops();
}

async function packages() {
  const lock = createHash('sha256')
    .update(readFileSync(resolve(root, 'package-lock.json')))
    .digest('hex');
  const stamp = resolve(root, 'node_modules/.lock-sha256');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing packages…');
  // Not `npm ci`: it refuses a lock file without download addresses on machines of another kind than wrote it.
  const code = await run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error']);
  if (code !== 0) process.exit(code);
  writeFileSync(stamp, lock);
}
