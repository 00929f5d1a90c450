/**
 * A closed database with the base brushes in it, to begin tests with: one takes seconds to make, so a process makes
 * one.
 */
import { rmSync } from 'node:fs';
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { start } from './start';

let template: Promise<string> | null = null;

export function seededTemplate(): Promise<string> {
  return (template ??= make());
}

async function make(): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  await (await start({ folder, page: folder, port: 0, version: 'test' })).close();
  return folder;
}
