/** The body that brushes are proved on. It and its strokes stay while one goes from brush to brush and place to place. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { markRaw, ref } from 'vue';
import { BODIES, BODY_DENSITIES, type BodyDensity, type BodyName } from '#core/mesh';
import type { Alpha, Brush } from '#core/settings';
import { Sculptor } from '../workers/sculptor';

export const useProof = defineStore('proof', () => {
  const sculptor = markRaw(new Sculptor());
  const state = sculptor.state;
  const name = useLocalStorage<BodyName>('proof-body', 'ball');
  const density = useLocalStorage<BodyDensity>('proof-density', 300);
  const mirrorX = ref(false);
  const opening = ref(false);
  /** Counts openings, so that views know to show the new body. */
  const opened = ref(0);
  let started: Promise<void> | null = null;

  function start(): Promise<void> {
    if (!BODIES.includes(name.value)) name.value = 'ball';
    if (!BODY_DENSITIES.includes(density.value)) density.value = 300;
    started ??= reopen();
    return started;
  }

  async function reopen(): Promise<void> {
    opening.value = true;
    try {
      await sculptor.open({ kind: 'body', name: name.value, density: density.value });
      opened.value++;
    } finally {
      opening.value = false;
    }
  }

  async function show(body: BodyName, cells: BodyDensity): Promise<void> {
    name.value = body;
    density.value = cells;
    started = reopen();
    await started;
  }

  /** Gives the brush's settings to the body and runs its strokes again with them. */
  async function follow(brush: Brush, alpha: Alpha | null): Promise<void> {
    await start();
    await sculptor.replay(() => sculptor.use(brush, alpha));
  }

  return { sculptor, state, name, density, mirrorX, opening, opened, start, show, follow };
});
