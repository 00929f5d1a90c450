/** `npm run test:unit`: Jest, reading TypeScript. The servers it starts run packed helpers. */
import { resolve } from 'node:path';
import { root } from './root.mjs';
import { run } from './run.mjs';

/** Where the helpers lie, given by whoever packed them already: two runs don't pack into one folder. */
const given = process.env['MOLDSTAMP_PACKED'];
if (!given) await import('./server.mjs');

/** Its runner knows no time limit: a test that waits for what never comes would wait for ever. */
const MOST_MINUTES = 40;

process.exit(
  await run(
    process.execPath,
    ['--import', 'tsx', 'node_modules/jest/bin/jest.js', '--runInBand', ...process.argv.slice(2)],
    { MOLDSTAMP_PACKED: given ?? resolve(root, 'build') },
    MOST_MINUTES,
  ),
);
