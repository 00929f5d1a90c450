/** `npm test`: lint, types, unit and interface tests; the last line is `N passed, N failed`. */
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { installBrowser } from './browser.mjs';
import { bin, install, root, run, runAside } from './run.mjs';

const only = process.argv[2];
const packed = resolve(root, 'build');
let passed = 0;
let failed = 0;

/** A check: one that passes, or one that fails. */
const check = (name, command, args) => async () => {
  if ((await runAside(name, bin(command), args)) === 0) passed++;
  else failed++;
};

/** Tests that write a report; one that broke off before writing counts as one failure. */
async function counted(report, act, read) {
  const path = resolve(root, report);
  rmSync(path, { force: true });
  const ok = (await act()) === 0;
  const [good, bad] = existsSync(path) ? read(JSON.parse(readFileSync(path, 'utf8'))) : [0, 0];
  passed += good;
  failed += bad;
  if (!ok && bad === 0) failed++;
}

/** Of these folders. */
const unitTests =
  (...folders) =>
  () => {
    const report = `build/unit-${folders[0]}.json`;
    const match = `<rootDir>/{${folders.join()}}/**/*.test.ts`;
    const args = ['scripts/unit.mjs', '--testMatch', match, '--json', `--outputFile=${report}`];
    return counted(
      report,
      () => runAside(`Unit tests (${folders.join(', ')})`, process.execPath, args, { MOLDSTAMP_PACKED: packed }),
      (r) => [r.numPassedTests, r.numFailedTests + r.numRuntimeErrorTestSuites],
    );
  };

/** Tests of the interface go on two beside each other, with one browser and one server each for all of them. */
async function interfaceTests() {
  console.log('\n== Interface tests');
  await counted(
    'build/interface.json',
    () => run(bin('playwright'), ['test', '--workers=2']),
    (r) => [r.stats.expected + r.stats.flaky, r.stats.unexpected],
  );
}

async function build() {
  const pages = await runAside('Build', bin('vite'), ['build', '--logLevel', 'warn']);
  const ok = pages === 0 && (await runAside('Demo data', bin('tsx'), ['demo/build.ts'])) === 0;
  if (!ok) failed++;
  return ok;
}

// Both wait for the network most of the time. No test runs meanwhile: one installs a tool of the system too.
await Promise.all([install(), only === 'unit' ? null : installBrowser()]);
await import('./server.mjs');
// Reports go here; a fresh clone has no such folder yet.
mkdirSync(packed, { recursive: true });

let built = false;
const UNIT = [unitTests('server', 'contract', 'demo'), unitTests('core', 'web', 'scripts')];
const CHECKS = [
  check('Types', 'vue-tsc', ['--noEmit', '-p', 'tsconfig.json']),
  check('Types of core, without a browser', 'tsc', ['-p', 'tsconfig.core.json']),
  check('Lint', 'eslint', ['.', '--max-warnings', '0']),
  // Its newer command takes half the time.
  check('Format', 'prettier', ['--experimental-cli', '--check', '.', '--log-level', 'warn']),
];
const waiting = [
  ...(only === 'ui' ? [] : UNIT),
  ...(only === 'unit' ? [] : [async () => (built = await build())]),
  ...CHECKS,
];

/** What each core does: the next of what waits, the longest first. */
async function core() {
  for (let next = waiting.shift(); next; next = waiting.shift()) await next();
}
await Promise.all([core(), core()]);
if (built) await interfaceTests();

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
