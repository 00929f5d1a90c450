/** `npm test`: lint, types, unit and interface tests; the last line is `N passed, N failed`. */
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { bin, browser, install, root, run, runAside } from './run.mjs';

const only = process.argv[2];
let passed = 0;
let failed = 0;

function count(ok) {
  if (ok) passed++;
  else failed++;
}

async function step(name, command, args, env) {
  console.log(`\n== ${name}`);
  const code = await run(command, args, env);
  return code === 0;
}

/** Counts of a run that writes a report; one that broke off before writing counts as one failure. */
async function counted(name, command, args, report, read, env) {
  const path = resolve(root, report);
  rmSync(path, { force: true });
  const ok = await step(name, command, args, env);
  if (!existsSync(path)) {
    failed++;
    return;
  }
  const [good, bad] = read(JSON.parse(readFileSync(path, 'utf8')));
  passed += good;
  failed += bad;
  if (!ok && bad === 0) failed++;
}

await install();
// Reports go here; a fresh clone has no such folder yet.
mkdirSync(resolve(root, 'build'), { recursive: true });

/** Lint, types and the build for the interface tests go on one core while the unit tests run on the other. */
async function checksAndBuild() {
  const aside = async (name, command, args) => (await runAside(name, command, args)) === 0;
  count(await aside('Lint', bin('eslint'), ['.', '--max-warnings', '0']));
  count(await aside('Format', bin('prettier'), ['--check', '.', '--log-level', 'warn']));
  count(await aside('Types', bin('vue-tsc'), ['--noEmit', '-p', 'tsconfig.json']));
  count(await aside('Types of core, without a browser', bin('tsc'), ['-p', 'tsconfig.core.json']));
  if (only === 'unit') return false;
  return (
    (await aside('Build', bin('vite'), ['build', '--logLevel', 'warn'])) &&
    (await aside('Server', process.execPath, ['scripts/server.mjs'])) &&
    (await aside('Demo data', bin('tsx'), ['demo/build.ts']))
  );
}

async function unitTests() {
  if (only === 'ui') return;
  await counted(
    'Unit tests',
    process.execPath,
    ['scripts/unit.mjs', '--json', '--outputFile=build/unit.json'],
    'build/unit.json',
    (r) => [r.numPassedTests, r.numFailedTests + r.numRuntimeErrorTestSuites],
  );
}

const [built] = await Promise.all([checksAndBuild(), unitTests()]);
if (only !== 'unit') {
  const chromium = await browser();
  if (built) {
    await counted(
      'Interface tests',
      bin('playwright'),
      ['test'],
      'build/interface.json',
      (r) => [r.stats.expected + r.stats.flaky, r.stats.unexpected],
      { MOLDSTAMP_BROWSER: chromium },
    );
  } else failed++;
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
