/** Files that are being read for what is open: whether any is, and what went wrong with the last. */
import { computed, ref } from 'vue';
import { sentence, useConnection } from './connection';

export function readingFiles() {
  const connection = useConnection();
  const problem = ref<string | null>(null);
  const going = ref(0);
  const busy = computed(() => going.value > 0);

  async function reading(act: () => Promise<void>): Promise<void> {
    problem.value = null;
    going.value++;
    try {
      await act();
    } catch (error) {
      connection.noticed(error);
      problem.value = sentence(error);
    } finally {
      going.value--;
    }
  }
  return { problem, busy, reading };
}
