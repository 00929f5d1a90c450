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
  // Its newer command takes half the time.
  count(await aside('Format', bin('prettier'), ['--experimental-cli', '--check', '.', '--log-level', 'warn']));
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

/** Interface tests wait here, a file at a time, the longest first, for a core that has nothing else to do. */
const LONGEST = [
  'slab',
  'faults',
  'proof',
  'hand',
  'part',
  'painting',
  'pictures',
  'brush',
  'rack',
  'scan',
  'photograph',
  'story',
  'lineage',
  'thumbnail',
  'belts',
  'backups',
  'away',
  'every',
  'settings',
  'leave',
];
const rank = (name) => (LONGEST.includes(name) ? LONGEST.indexOf(name) : -1);
const waiting = readdirSync(resolve(root, 'e2e'))
  .filter((file) => file.endsWith('.spec.ts'))
  .map((file) => file.replace('.spec.ts', ''))
  .sort((a, b) => rank(a) - rank(b));

async function interfaceTests() {
  for (let name = waiting.shift(); name; name = waiting.shift()) {
    const env = { MOLDSTAMP_BROWSER: await browser(), MOLDSTAMP_RUN: name };
    const args = ['test', `e2e/${name}.spec.ts`, '--workers=1'];
    await counted(
      async () => (await runAside(`Interface tests (${name})`, bin('playwright'), args, env)) === 0,
      `build/${name}.json`,
      (r) => [r.stats.expected + r.stats.flaky, r.stats.unexpected],
    );
  }
}

/** Settles once the pages can be tried: false where they couldn't be built. */
const built = checksAndBuild();

async function checksThenInterface() {
  if (await built) return interfaceTests();
  if (only !== 'unit') failed++;
}

async function unitThenInterface() {
  await unitTests();
  if (await built) await interfaceTests();
}

await Promise.all([checksThenInterface(), unitThenInterface()]);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
