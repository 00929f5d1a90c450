/** What drafts in this browser name is held by the server, so that they can be saved however late. */
import { useLocalStorage } from '@vueuse/core';
import { putHolds } from '../api/client';
import { blobsOfDrafts } from '../api/drafts';
import { useConnection } from './connection';

const EVERY_MS = 60_000;

/** Says so now, when something else is named, and when the server is back. */
export function holdDrafts(): void {
  const connection = useConnection();
  const holder = useLocalStorage('draft-holder', () => crypto.randomUUID() as string);
  let said = '';

  async function hold(): Promise<void> {
    const named = (await blobsOfDrafts()).sort();
    if (JSON.stringify(named) === said) return;
    await putHolds(holder.value, named);
    said = JSON.stringify(named);
  }

  const quietly = (): void => void hold().catch((error: unknown) => connection.noticed(error));
  connection.whenBack(async () => {
    said = '';
    await hold();
  });
  quietly();
  window.setInterval(quietly, EVERY_MS);
}
