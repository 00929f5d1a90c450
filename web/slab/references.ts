/** Adding a reference picture from a file, wherever it came from: picked, dropped or pasted. */
import { ref } from 'vue';
import { ReferenceSchema } from '#core/settings';
import { putBlob } from '../api/client';
import { referencePicture } from './referenceFile';
import { sentence, useConnection } from '../stores/connection';
import { useSlabBench } from '../stores/slabBench';
import { useSlabTools } from '../stores/slabTools';

const problem = ref<string | null>(null);
const busy = ref(false);
const MOST = 12;

export function useReferences() {
  const bench = useSlabBench();
  const tools = useSlabTools();
  const connection = useConnection();

  async function add(file: File): Promise<void> {
    problem.value = null;
    tools.tab = 'pictures';
    if ((bench.doc?.references.length ?? 0) >= MOST) {
      problem.value = `A slab takes at most ${MOST} reference pictures. Take one down first.`;
      return;
    }
    busy.value = true;
    try {
      const picture = await referencePicture(file);
      const blob = await putBlob(picture.bytes);
      const reference = ReferenceSchema.parse({
        id: crypto.randomUUID(),
        name: file.name.slice(0, 120),
        blob,
        width: picture.width,
        height: picture.height,
      });
      bench.edit((slab) => slab.references.push(reference));
      tools.referenceId = reference.id;
    } catch (error) {
      connection.noticed(error);
      problem.value = sentence(error);
    } finally {
      busy.value = false;
    }
  }

  return { add, problem, busy };
}
