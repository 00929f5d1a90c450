/** The browser of the interface tests: Chromium from Debian’s packages. */
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';

/** The headless build first: the same engine without windows, which takes a quarter less of the processor. */
const SHELL = '/usr/bin/chromium-headless-shell';
const PLACES = [SHELL, '/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];

/** The one that is there; the usual place where none is. */
export const installed = () => process.env['MOLDSTAMP_BROWSER'] ?? PLACES.find(existsSync) ?? '/usr/bin/chromium';

/** Installs one where there is none, the headless build where that asks nobody for a password. */
export async function installBrowser() {
  const admin = process.getuid?.() === 0;
  if (existsSync(SHELL) || (!admin && PLACES.some(existsSync))) return;
  console.log('Installing Chromium…');
  const apt = (...words) => ran(...(admin ? [] : ['sudo']), 'apt-get', ...words);
  await apt('update', '-qq');
  await apt('install', '-y', '-qq', 'chromium-headless-shell');
  // Older releases of Debian have the whole browser alone.
  if (!PLACES.some(existsSync)) await apt('install', '-y', '-qq', 'chromium');
  if (PLACES.some(existsSync)) return;
  console.error('Chromium could not be installed. Install the package "chromium" and run this again.');
  process.exit(1);
}

/** Settles when the command has ended, however it went. */
function ran(command, ...words) {
  return new Promise((done) => {
    const child = spawn(command, words, {
      stdio: ['inherit', 'ignore', 'ignore'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    child.once('error', done);
    child.once('exit', done);
  });
}
