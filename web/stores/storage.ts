/** What the data folder takes, and cleaning it up; the server does so by itself once a day. */
import { ref } from 'vue';
import { counted, spaced } from '#core/words';
import { cleanStorage, getStorage, type Sizes } from '../api/client';
import { useConnection } from './connection';

export const megabytes = (bytes: number): string =>
  bytes < 10 * 2 ** 20 ? (bytes / 2 ** 20).toFixed(1) : spaced(bytes / 2 ** 20);

export function useStorageSizes() {
  const connection = useConnection();
  const sizes = ref<Sizes | null>(null);
  const cleaning = ref(false);

  async function look(): Promise<void> {
    sizes.value = await getStorage().catch((error: unknown) => {
      connection.noticed(error);
      return sizes.value;
    });
  }

  /** Answers what was freed, as a sentence. */
  async function clean(): Promise<string> {
    cleaning.value = true;
    try {
      const { cleaned, sizes: now } = await cleanStorage();
      const before = sizes.value ? sizes.value.files + sizes.value.database : 0;
      sizes.value = now;
      const won = before - now.files - now.database;
      return won > 2 ** 20
        ? `${megabytes(won)} MB freed; ${counted(cleaned.revisions, 'old revision', 'old revisions')} went.`
        : 'There was nothing to clean up.';
    } finally {
      cleaning.value = false;
    }
  }

  return { sizes, cleaning, look, clean };
}
