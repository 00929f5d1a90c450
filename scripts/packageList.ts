/** The packages that the product is made of, with their licences, for the page to name: `virtual:packages`. */
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import type { Plugin } from 'vite';

const ID = 'virtual:packages';
const root = resolve(import.meta.dirname, '..');

function read(path: string): Record<string, unknown> {
  return JSON.parse(readFileSync(resolve(root, path), 'utf8')) as Record<string, unknown>;
}

/** Old packages say it as an object. */
function licenceOf(pkg: Record<string, unknown>): string {
  const { license, licenses } = pkg;
  const [one] = Array.isArray(licenses) ? licenses : [license];
  if (typeof one === 'string') return one;
  return typeof one === 'object' && one !== null && 'type' in one ? String(one.type) : 'see its package';
}

export function packageList(): Plugin {
  return {
    name: 'package-list',
    resolveId: (id) => (id === ID ? `\0${ID}` : null),
    load(id) {
      if (id !== `\0${ID}`) return null;
      const { version, dependencies } = read('package.json');
      const packages = Object.keys(dependencies as object).map((name) => {
        const pkg = read(`node_modules/${name}/package.json`);
        return { name, version: String(pkg['version']), licence: licenceOf(pkg) };
      });
      return `export const version = ${JSON.stringify(version)};\nexport const packages = ${JSON.stringify(packages)};`;
    },
  };
}
