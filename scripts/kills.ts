/** `npx tsx scripts/kills.ts [times] [saves | restores]`: the long run of what `npm test` tries a few times. */
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { seeded } from '#core/random';
import { killedRestoring } from '../server/backups/kills';
import { killed } from '../server/packs/kills';
import { seededTemplate } from '../server/testTemplate';

const times = Number(process.argv[2] ?? 200);
const pack = readFileSync(resolve(import.meta.dirname, '../server/packs/kept/version1.pack.zip'));
const random = seeded(Date.now() % 1e6);
const told = (rounds: number, { midway }: { midway: number }): void => {
  if (rounds % 10 === 0) console.log(`${rounds} kills, ${midway} midway`);
};

if (process.argv[3] === 'restores') {
  const { restored, midway } = await killedRestoring(times, pack, await seededTemplate(), random, told);
  console.log(`${times} kills: ${restored} restores acknowledged, ${midway} killed midway; nothing is lost.`);
} else {
  const { saves, takings, midway } = await killed(times, pack, await seededTemplate(), random, told);
  console.log(
    `${times} kills: ${saves} saves and ${takings} packs acknowledged, ${midway} killed midway; nothing is lost.`,
  );
}
