/** The studio's process: one job after the other, on stored files. It may be killed at any time. */
import '../lean';
import { readFile } from 'node:fs/promises';
import { Problem } from '../problem';
import { BlobFiles } from '../store/blobFiles';
import type { Blobs } from './blobs';
import { newRecently } from './desk';
import { carryOut } from './jobs';
import type { FromStudio, ToStudio } from './messages';

const recent = newRecently();
const files = new BlobFiles(process.argv[2]);
const say = (message: FromStudio): void => void process.send?.(message, () => undefined);

const bytesOf =
  (arrived: ToStudio['arrived']): Blobs =>
  async (hash) => {
    const path = arrived[hash] ?? files.pathOf(hash);
    return readFile(path).catch((error: NodeJS.ErrnoException) => {
      if (error.code !== 'ENOENT') throw error;
      throw new Problem(404, 'blob-missing', `There is no stored data ${hash.slice(0, 12)}….`, { hash });
    });
  };

// Readers remark on what they skip; what comes of it is said in the answer.
console.warn = () => undefined;

process.on('message', ({ job, arrived }: ToStudio) => {
  carryOut(job, { blobs: bytesOf(arrived), recent }).then(
    (value) => say({ kind: 'done', value }),
    (error: Error) => {
      const problem =
        error instanceof Problem ? { status: error.status, code: error.code, details: error.details } : undefined;
      say({ kind: 'failed', message: error.message, stack: error.stack, ...(problem ? { problem } : {}) });
    },
  );
});
process.on('disconnect', () => process.exit(0));
say({ kind: 'ready' });
