/** Adding a reference picture from a file, wherever it came from: picked, dropped or pasted. */
import { defineStore } from 'pinia';
import { ReferenceSchema } from '#core/settings';
import { putBlob } from '../api/client';
import { ReadingCancelled } from '../workers/meshFiles';
import { readingFiles } from './readingFiles';
import { referencePicture } from './referenceFile';
import { useSlabBench } from './slabBench';
import { useSlabTools } from './slabTools';

const MOST = 12;

export const useSlabReferences = defineStore('slabReferences', () => {
  const bench = useSlabBench();
  const tools = useSlabTools();
  const { problem, going, reading } = readingFiles('pictures on a slab');

  function add(file: File): Promise<void> {
    tools.tab = 'pictures';
    const slab = bench.doc?.id;
    return reading(`Reading “${file.name}”`, async (hand) => {
      const picture = await referencePicture(file);
      hand.report(0.5);
      if (hand.cancelled) throw new ReadingCancelled();
      const blob = await putBlob(picture.bytes);
      const reference = ReferenceSchema.parse({
        id: crypto.randomUUID(),
        name: file.name.slice(0, 120),
        blob,
        width: picture.width,
        height: picture.height,
      });
      if (bench.doc?.id !== slab)
        throw new Error(`“${file.name}” isn’t pinned: its slab was left before it was read. Pin it again there.`);
      // Counted now: others may have come while this one was read.
      if (bench.doc && bench.doc.references.length >= MOST)
        throw new Error(`A slab takes at most ${MOST} reference pictures. Remove one first.`);
      bench.edit((own) => own.references.push(reference));
      tools.referenceId = reference.id;
    });
  }

  return { add, problem, going };
});
