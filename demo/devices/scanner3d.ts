/** A 3D scanner that isn't there: writes the mooring stone into the inbox as it would come, piece by piece. */
import { access, appendFile, mkdir, rename } from 'node:fs/promises';
import { join } from 'node:path';
import { asPly, asScanned, mooringStone } from '../scans/mooringStone';

const NAME = 'mooring stone, rough.ply';
const DENSITY = 90;
const PIECES = 12;
const PAUSE_MS = 250;

/** Once for an inbox: nothing is written where it came before. */
export async function scanMooringStone(inbox: string): Promise<boolean> {
  const there = (path: string): Promise<boolean> =>
    access(path).then(
      () => true,
      () => false,
    );
  if ((await there(join(inbox, NAME))) || (await there(join(inbox, 'taken', NAME)))) return false;
  await mkdir(inbox, { recursive: true });
  const bytes = asPly(asScanned(mooringStone(DENSITY), 11));
  const growing = join(inbox, `${NAME}.part`);
  for (let n = 0; n < PIECES; n++) {
    const [from, to] = [n, n + 1].map((k) => Math.round((k * bytes.length) / PIECES));
    await appendFile(growing, bytes.subarray(from, to));
    await new Promise((done) => setTimeout(done, PAUSE_MS));
  }
  await rename(growing, join(inbox, NAME));
  return true;
}
