/** `npm run test:unit`: Jest, whose workers read TypeScript by themselves. */
import { run } from './run.mjs';

process.exit(await run(process.execPath, ['node_modules/jest/bin/jest.js', ...process.argv.slice(2)], { NODE_OPTIONS: '--import tsx' }));
