/** The devices of the demo: a flatbed on the network and a 3D scanner that writes into the inbox. */
import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import sharp from 'sharp';
import { startFlatbed } from './flatbed';
import { scanMooringStone } from './scanner3d';

// A page of 140 million pixels is drawn on all cores: a real device has its own.
sharp.concurrency(availableParallelism());

const FLATBED_PORT = 4880;
const data = resolve(process.env['MOLDSTAMP_DATA'] ?? 'data');
const inbox = resolve(process.env['MOLDSTAMP_INBOX'] ?? `${data}/inbox`);

const port = Number(process.env['FLATBED_PORT'] ?? FLATBED_PORT);
const bed = await startFlatbed(port).catch((error: NodeJS.ErrnoException) => {
  console.log(
    `The stand-in flatbed isn’t there: ${error.code === 'EADDRINUSE' ? `port ${port} is taken` : error.message}.`,
  );
  return null;
});
if (bed) console.log(`A stand-in flatbed scanner answers at ${bed.address}`);
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    void (bed?.close() ?? Promise.resolve()).then(() => process.exit(0));
  });
if (await scanMooringStone(inbox)) console.log('The stand-in 3D scanner has written the mooring stone into the inbox.');
