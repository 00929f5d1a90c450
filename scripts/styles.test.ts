/** Each control of Element Plus that is used has its looks, and no look is loaded for nothing. */
import { readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

const web = resolve(import.meta.dirname, '../web');
const kebab = (name: string): string =>
  name
    .replace(/^El/, '')
    .replace(/(?<!^)[A-Z]/g, '-$&')
    .toLowerCase();

test('the looks that are loaded are those of the controls that are imported', () => {
  const used = new Set<string>();
  for (const file of readdirSync(web, { recursive: true, encoding: 'utf8' }).filter((f) => /\.(vue|ts)$/.test(f))) {
    for (const [, names] of readFileSync(join(web, file), 'utf8').matchAll(/import \{([^}]*)\} from 'element-plus'/g)) {
      for (const name of names
        .split(',')
        .map((n) => n.trim())
        .filter((n) => n.startsWith('El')))
        used.add(kebab(name));
    }
  }
  const loaded = [
    ...readFileSync(join(web, 'styles/element.ts'), 'utf8').matchAll(/components\/([a-z-]+)\/style/g),
  ].map(([, name]) => name);
  expect(used.size).toBeGreaterThan(8);
  expect(loaded.sort()).toEqual([...used].sort());
});
