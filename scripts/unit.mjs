/** `npm run test:unit`: Jest, reading TypeScript. */
import { run } from './run.mjs';

/** Its runner knows no time limit: a test that waits for what never comes would wait for ever. */
const MOST_MINUTES = 15;

process.exit(
  await run(
    process.execPath,
    ['--import', 'tsx', 'node_modules/jest/bin/jest.js', '--runInBand', ...process.argv.slice(2)],
    {},
    MOST_MINUTES,
  ),
);
