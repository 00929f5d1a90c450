/** A flatbed on the network: found by its address, asked for a preview and for pages, which become sheets. */
import { defineStore } from 'pinia';
import { useLocalStorage } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import * as api from '../api/client';
import { useArrivals } from './arrivals';
import { sentence, useConnection } from './connection';
import { useWork } from './work';

const ASK_MS = 300;
const PREVIEW_DPI = 75;

export class ScanCancelled extends Error {}

export const useScanner = defineStore('scanner', () => {
  const arrivals = useArrivals();
  const connection = useConnection();
  const work = useWork();
  const address = useLocalStorage('scanner-address', '');
  const found = shallowRef<api.ScannerCapabilities | null>(null);
  /** Where what was found is. */
  const at = shallowRef<api.ScannerAt | null>(null);
  const looking = ref(false);
  const problem = ref<string | null>(null);
  /** It is outside of the local network: the person is asked first. */
  const outside = ref<string | null>(null);
  const preview = shallowRef<api.SheetFile | null>(null);
  const scanning = computed(() => work.find('scanner'));
  let looks = 0;

  async function look(allowed = false): Promise<void> {
    const mine = ++looks;
    const wanted = { address: address.value.trim(), outside: allowed };
    looking.value = true;
    problem.value = null;
    outside.value = null;
    found.value = null;
    preview.value = null;
    try {
      const can = await api.getScanner(wanted);
      if (mine !== looks) return;
      found.value = can;
      at.value = wanted;
    } catch (error) {
      if (mine !== looks) return;
      connection.noticed(error);
      if (error instanceof api.Refused && error.code === 'scanner-outside') outside.value = error.message;
      else problem.value = sentence(error);
    } finally {
      if (mine === looks) looking.value = false;
    }
  }

  async function scan(order: Pick<api.ScanOrder, 'dpi' | 'colour' | 'area'>, what: string): Promise<api.ScanState> {
    const from = at.value!;
    return work.run(what, 'scanner', async (hand) => {
      const id = await api.beginScan({ ...from, ...order });
      let given = false;
      hand.onCancel(() => {
        given = true;
        void api.cancelScan(id).catch(() => undefined);
      });
      for (;;) {
        const state = await api.getScan(id);
        hand.report(
          state.share ?? 0,
          state.bytes > 0 ? `${(state.bytes / 2 ** 20).toFixed(1)} MB` : 'the lamp is on its way',
        );
        if (state.page) return state;
        if (state.problem) throw given ? new ScanCancelled() : new Error(state.problem);
        await new Promise((done) => setTimeout(done, ASK_MS));
      }
    });
  }

  /** Coarse and of the whole glass, to set the area on. */
  async function look75(): Promise<void> {
    if (!found.value || scanning.value) return;
    problem.value = null;
    const [dpi] = found.value.resolutions.filter((d) => d >= PREVIEW_DPI);
    try {
      preview.value = (await scan({ dpi, colour: found.value.colours[0] ?? 'grey', area: null }, 'Previewing')).page;
    } catch (error) {
      refused(error);
    }
  }

  /** A page as a sheet; its id, or null when it was cancelled or couldn’t be. */
  async function page(
    order: Pick<api.ScanOrder, 'dpi' | 'colour' | 'area'>,
  ): Promise<{ id: string; odd: string | null } | null> {
    if (!found.value || scanning.value) return null;
    problem.value = null;
    try {
      const { page: file, odd } = await scan(order, `Scanning at ${order.dpi} dpi`);
      return { id: await arrivals.sheetOf(file!), odd };
    } catch (error) {
      refused(error);
      return null;
    }
  }

  function refused(error: unknown): void {
    if (error instanceof ScanCancelled) return;
    connection.noticed(error);
    problem.value = sentence(error);
  }

  return { address, found, looking, problem, outside, preview, scanning, look, look75, page };
});
