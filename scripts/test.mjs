/** `npm test`: lint, types, unit and interface tests; the last line is `N passed, N failed`. */
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
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
async function counted(go, report, read) {
  const path = resolve(root, report);
  rmSync(path, { force: true });
  const ok = await go();
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
await import('./server.mjs');
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
    (await aside('Demo data', bin('tsx'), ['demo/build.ts']))
  );
}

async function unitTests() {
  if (only === 'ui') return;
  await counted(
    () => step('Unit tests', process.execPath, ['scripts/unit.mjs', '--json', '--outputFile=build/unit.json']),
    'build/unit.json',
    (r) => [r.numPassedTests, r.numFailedTests + r.numRuntimeErrorTestSuites],
  );
}

/** Interface tests that one core does while the unit tests are still running on the other. */
const EARLY = ['faults', 'pictures', 'story'].map((name) => `e2e/${name}.spec.ts`);

async function interfaceTests(name, files, start, more = []) {
  const env = { MOLDSTAMP_BROWSER: await browser(), MOLDSTAMP_RUN: name };
  const go = async () =>
    (await start(`Interface tests (${name})`, bin('playwright'), ['test', ...files, ...more], env)) === 0;
  await counted(go, `build/${name}.json`, (r) => [r.stats.expected + r.stats.flaky, r.stats.unexpected]);
}

async function checksThenEarly() {
  const built = await checksAndBuild();
  if (only === 'unit') return;
  if (built) await interfaceTests('early', EARLY, runAside, ['--workers=1']);
  else failed++;
  return built;
}

const [built] = await Promise.all([checksThenEarly(), unitTests()]);
if (built) {
  const late = readdirSync(resolve(root, 'e2e'))
    .filter((file) => file.endsWith('.spec.ts'))
    .map((file) => `e2e/${file}`)
    .filter((file) => !EARLY.includes(file));
  await interfaceTests('interface', late, async (title, command, args, env) => {
    console.log(`\n== ${title}`);
    return run(command, args, env);
  });
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
