/** Files that are being read for what is open: how far that is, what gives it up, and what went wrong with the last. */
import { computed, ref } from 'vue';
import { ReadingCancelled } from '../workers/meshFiles';
import { sentence, useConnection } from './connection';
import { useWork, type WorkHand } from './work';

/** `on` names what they are for, in the list of what goes on. */
export function readingFiles(on: string) {
  const connection = useConnection();
  const work = useWork();
  const problem = ref<string | null>(null);
  const going = computed(() => work.find(on));

  async function reading(what: string, act: (hand: WorkHand) => Promise<void>): Promise<void> {
    problem.value = null;
    try {
      await work.run(what, on, act);
    } catch (error) {
      if (error instanceof ReadingCancelled) return;
      connection.noticed(error);
      problem.value = sentence(error);
    }
  }
  return { problem, going, reading };
}
