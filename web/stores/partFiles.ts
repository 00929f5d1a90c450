/** Mesh files as parts: each becomes one, brought down to its budget. */
import { computed } from 'vue';
import { readScanFile, ReadingCancelled } from '../workers/meshFiles';
import { useNewPart } from './newPart';
import { useWork } from './work';

const ON = 'part files';

export function usePartFiles(failed: (error: unknown) => void) {
  const fresh = useNewPart();
  const work = useWork();
  /** What is done with the file that is being read; null while none is. */
  const going = computed(() => work.find(ON));

  /** Answers the ids of those that became parts; the others are told. Given up, the rest is left out. */
  async function open(files: readonly File[]): Promise<string[]> {
    const made: string[] = [];
    for (const file of files) {
      try {
        const { mesh, perBody } = await work.run(`Reading “${file.name}”`, ON, (hand) => readScanFile(file, hand));
        made.push(
          await fresh.add({
            name: file.name.replace(/\.[^.]+$/, ''),
            mesh,
            made: { from: 'file', sourceId: null, sourceRevision: null },
            // One unit of a file is a millimetre until another size is typed.
            millimetres: perBody,
            up: null,
          }),
        );
      } catch (error) {
        if (error instanceof ReadingCancelled) break;
        failed(error);
      }
    }
    return made;
  }

  return { going, open };
}
