/** `npx tsx scripts/kills.ts [times]`: the long run of what `npm test` tries a few times. */
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { seeded } from '#core/random';
import { killed } from '../server/packs/kills';
import { seededTemplate } from '../server/testTemplate';

const times = Number(process.argv[2] ?? 200);
const pack = readFileSync(resolve(import.meta.dirname, '../server/packs/kept/version1.pack.zip'));
const { saves, takings, midway } = await killed(times, pack, await seededTemplate(), seeded(Date.now() % 1e6));
console.log(
  `${times} kills: ${saves} saves and ${takings} packs acknowledged, ${midway} killed midway; nothing is lost.`,
);
