/**
 * Where the server's helpers lie. Packed, their scripts lie beside the server's own; from its sources they are sources
 * too, unless `MOLDSTAMP_PACKED` names a folder of packed ones: tests take those, which start in a quarter of the time.
 */
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';

/** Null where there is no packed one. */
export function packed(name: string): string | null {
  return (
    [import.meta.dirname, process.env['MOLDSTAMP_PACKED']]
      .flatMap((folder) => (folder ? [resolve(folder, `${name}.mjs`)] : []))
      .find((path) => existsSync(path)) ?? null
  );
}
