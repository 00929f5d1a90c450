/** `npm run bench [part]`: prints a table and writes bench/results.json. */
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { resolve } from 'node:path';
import { castFigures } from './cast';
import { dabFigures } from './dab';
import { marksFigures } from './marks';
import type { Figure } from './measure';
import { backupFigures } from './backups';
import { packFigures } from './packs';
import { paintFigures } from './paint';
import { partFigures } from './parts';
import { photographFigures } from './photograph';
import { rackFigures } from './rack';
import { recipeFigures } from './recipe';
import { saveFigures } from './save';
import { scanFigures } from './scan';
import { serverFigures } from './server';
import { slabFigures } from './slab';
import { refineFigures } from './refine';
import { replayFigures } from './replay';
import { strokeFigures } from './stroke';

const parts: Record<string, () => Figure[] | Promise<Figure[]>> = {
  dab: dabFigures,
  stroke: strokeFigures,
  replay: replayFigures,
  refine: refineFigures,
  cast: castFigures,
  slab: slabFigures,
  save: saveFigures,
  recipe: recipeFigures,
  photograph: photographFigures,
  marks: marksFigures,
  scan: scanFigures,
  parts: partFigures,
  paint: paintFigures,
  backups: backupFigures,
  packs: packFigures,
  rack: rackFigures,
  server: serverFigures,
};
const only = process.argv[2];
if (only !== undefined && !(only in parts)) {
  console.error(`There is no part "${only}"; there are ${Object.keys(parts).join(', ')}.`);
  process.exit(1);
}

const figures: Figure[] = [];
for (const [name, run] of Object.entries(parts)) {
  if (only !== undefined && only !== name) continue;
  figures.push(...(await run()));
}
const short = (n: number): string => (Math.abs(n) >= 100 ? n.toFixed(0) : n.toFixed(2));
console.log(`${cpus().length} × ${cpus()[0]?.model ?? 'unknown'}, node ${process.version}\n`);
for (const f of figures) {
  console.log(
    `${f.key.padEnd(22)} ${short(f.value).padStart(8)} ${f.unit.padEnd(3)} target ${f.target.text}${f.target.met ? '' : '   NOT MET'}`,
  );
  console.log(`${''.padEnd(22)} ${short(f.floor.value).padStart(8)} ${f.unit.padEnd(3)} floor: ${f.floor.what}`);
}
writeFileSync(resolve(import.meta.dirname, 'results.json'), `${JSON.stringify(figures, null, 2)}\n`);
