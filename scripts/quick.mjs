/** `npm run test:quick`: lint and unit tests of the files that changed since the last commit, and the types of all. */
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { bin, root, run } from './run.mjs';

const git = (...args) => execFileSync('git', args, { cwd: root, encoding: 'utf8' }).split('\n').filter(Boolean);
const changed = [...git('diff', '--name-only', 'HEAD'), ...git('ls-files', '--others', '--exclude-standard')].filter(
  (f) => /\.(ts|mjs|vue)$/.test(f) && existsSync(resolve(root, f)),
);
if (changed.length === 0) console.log('Nothing changed since the last commit.');

let ok = true;
const step = async (name, command, args) => {
  console.log(`\n== ${name}`);
  ok = (await run(command, args, {})) === 0 && ok;
};
if (changed.length > 0) {
  await step('Lint', bin('eslint'), [...changed, '--max-warnings', '0']);
  await step('Format', bin('prettier'), ['--check', ...changed, '--log-level', 'warn']);
}
await step('Types', bin('vue-tsc'), ['--noEmit', '-p', 'tsconfig.json']);
const tests = changed.filter((f) => /^(core|server|demo|web|scripts|contract)\/.*\.ts$/.test(f));
if (tests.length > 0)
  await step('Unit tests', process.execPath, ['scripts/unit.mjs', '--findRelatedTests', '--passWithNoTests', ...tests]);
process.exit(ok ? 0 : 1);
