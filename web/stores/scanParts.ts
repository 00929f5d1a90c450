/** Parts captured from the scan on the bench: all of it, one component, or a region that a lasso holds. */
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { plain } from '../api/plain';
import type { Captured } from './newPart';
import { useNewPart } from './newPart';
import { sentence, useConnection } from './connection';
import { useScanBench } from './scanBench';
import type { Capture } from '../workers/scan.worker';

/** What the next press on the scan does. */
export type CaptureMode = 'component' | 'region';

export const useScanParts = defineStore('scan-parts', () => {
  const bench = useScanBench();
  const connection = useConnection();
  const fresh = useNewPart();
  const mode = ref<CaptureMode | null>(null);
  const going = ref(0);
  const busy = computed(() => going.value > 0);

  /** Answers the id of the part; null when it can't be captured, which is said. */
  async function capture(what: Capture, up: Captured['up']): Promise<string | null> {
    const on = bench.thread;
    if (!on || !bench.doc || busy.value) return null;
    const { id, card } = plain(bench.doc);
    const revision = bench.revision;
    const { millimetres } = bench;
    mode.value = null;
    going.value++;
    bench.problem = null;
    try {
      return await fresh.add({
        name: what.kind === 'whole' ? card.name : `${card.name} part`,
        mesh: await on.capture(plain(what)),
        made: { from: what.kind === 'whole' ? 'scan' : what.kind, sourceId: id, sourceRevision: revision },
        millimetres,
        up,
      });
    } catch (error) {
      connection.noticed(error);
      if (bench.doc?.id === id) bench.problem = `No part was captured. ${sentence(error)}`;
      return null;
    } finally {
      going.value--;
    }
  }

  return { mode, busy, capture };
});
