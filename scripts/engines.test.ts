/** What the README promises of Node is true of every package that is installed. */
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { intersects, minVersion, satisfies } from 'semver';

interface Package {
  version?: string;
  engines?: { node?: string };
  optional?: boolean;
}

const read = <T>(name: string): T => JSON.parse(readFileSync(resolve(import.meta.dirname, '..', name), 'utf8')) as T;
const { engines } = read<Required<Package>>('package.json');
const { packages } = read<{ packages: Record<string, Package> }>('package-lock.json');
const least = minVersion(engines.node!)!;

test('the lock says of Node what package.json does', () => {
  expect(packages[''].engines?.node).toBe(engines.node);
  expect(least.major).toBe(20);
});

test('no package asks for a newer Node than the least that is promised', () => {
  const newer = Object.entries(packages).flatMap(([name, { version, engines: own }]) =>
    own?.node && !satisfies(least, own.node) ? [`${name} ${version}: ${own.node}`] : [],
  );
  expect(newer).toEqual([]);
});

test('a range that leaves it out would be found', () => {
  for (const range of ['>=22', '^22.22 || >=24', '>= 22.22'])
    expect([satisfies(least, range), intersects(engines.node!, range)]).toEqual([false, true]);
});
