/** Mesh files as parts: each becomes one, brought down to its budget. */
import { ref } from 'vue';
import { readScanFile, ReadingCancelled } from '../workers/meshFiles';
import { useNewPart } from './newPart';

export function usePartFiles(failed: (error: unknown) => void) {
  const fresh = useNewPart();
  /** Files that are still read. */
  const reading = ref(0);

  /** Answers the ids of those that became parts; the others are told. */
  async function open(files: readonly File[]): Promise<string[]> {
    const made: string[] = [];
    reading.value += files.length;
    for (const file of files) {
      try {
        const { mesh, perBody } = await readScanFile(file, () => undefined).done;
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
        if (!(error instanceof ReadingCancelled)) failed(error);
      } finally {
        reading.value--;
      }
    }
    return made;
  }

  return { reading, open };
}
