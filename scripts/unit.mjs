/** `npm run test:unit`: Jest, reading TypeScript. */
import { run } from './run.mjs';

process.exit(await run(process.execPath, ['--import', 'tsx', 'node_modules/jest/bin/jest.js', '--runInBand', ...process.argv.slice(2)]));
