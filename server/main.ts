/**
 * `PORT`, `MOLDSTAMP_DATA`, `MOLDSTAMP_INBOX`, `MOLDSTAMP_BACKUPS` and Ctrl-C. With `--restore` a database that is
 * damaged is set aside and the newest backup restored; then it goes on as ever.
 */
import './lean';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { start } from './start';

const root = fileURLToPath(new URL('..', import.meta.url));
const { version } = JSON.parse(readFileSync(resolve(root, 'package.json'), 'utf8')) as { version: string };

const port = Number(process.env['PORT'] ?? 4870);
if (!Number.isInteger(port) || port < 0 || port > 65535) {
  console.error(`PORT must be a number from 0 to 65535, not "${process.env['PORT']}".`);
  process.exit(1);
}

try {
  const running = await start({
    folder: resolve(process.env['MOLDSTAMP_DATA'] ?? resolve(root, 'data')),
    template: process.env['MOLDSTAMP_TEMPLATE'] ?? resolve(root, 'build/demo-data'),
    page: resolve(root, 'dist'),
    inbox: process.env['MOLDSTAMP_INBOX'] ? resolve(process.env['MOLDSTAMP_INBOX']) : undefined,
    backups: process.env['MOLDSTAMP_BACKUPS'] ? resolve(process.env['MOLDSTAMP_BACKUPS']) : undefined,
    port,
    version,
    anew: process.argv.includes('--restore'),
  });
  console.log(`Mold Stamp is at ${running.address}`);
  let closing = false;
  const close = (): void => {
    if (closing) return;
    closing = true;
    void running.close().then(() => {
      console.log('Closed.');
      process.exit(0);
    });
  };
  process.on('SIGINT', close);
  process.on('SIGTERM', close);
} catch (error) {
  console.error((error as Error).message);
  process.exit(1);
}
