/**
 * A closed database with the base brushes in it, to begin tests with: one takes seconds to make, so a process makes
 * one.
 */
import { rmSync } from 'node:fs';
import { mkdtemp, readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { start } from './start';

/**
 * As long as it lives, threads that compile the same code are given this: an opened database costs half as much time
 * of the processor.
 */
const code = readFile(createRequire(import.meta.url).resolve('@electric-sql/pglite/pglite.wasm'));
const compiled = code.then((bytes) => WebAssembly.compile(new Uint8Array(bytes)));

let template: Promise<string> | null = null;

export function seededTemplate(): Promise<string> {
  return (template ??= make());
}

async function make(): Promise<string> {
  await compiled;
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  await (await start({ folder, page: folder, port: 0, version: 'test' })).close();
  return folder;
}
