/** Laying a mesh from a file on the slab as a set form, and turning another of its sides up. */
import { defineStore } from 'pinia';
import { SetFormSchema, type PartUp, type SetForm } from '#core/settings';
import { getBlob, putBlob } from '../api/client';
import { meshFromAbove, readMeshFile } from '../workers/meshFiles';
import { readingFiles } from './readingFiles';
import { useSlabBench } from './slabBench';
import { useSlabTools } from './slabTools';
import type { WorkHand } from './work';

const MOST_SET_FORMS = 64;

export const useSlabParts = defineStore('slabParts', () => {
  const bench = useSlabBench();
  const tools = useSlabTools();
  const { problem, going, reading } = readingFiles('part of a slab');

  /** The heights of a mesh from above, kept, and the height of a set form of this size in true proportion. */
  async function seen(
    mesh: ArrayBuffer,
    up: PartUp,
    size: number,
    hand: WorkHand,
  ): Promise<{ heights: string; height: number }> {
    const { heights, proportion } = await meshFromAbove(mesh, up, hand);
    const height = Number(Math.max(0.001, Math.min(1, proportion * size)).toFixed(3));
    return { heights: await putBlob(new Uint8Array(heights.data.buffer as ArrayBuffer)), height };
  }

  function add(file: File): Promise<void> {
    tools.tab = 'setForms';
    const slab = bench.doc?.id;
    return reading(`Reading “${file.name}”`, async (hand) => {
      const mesh = await readMeshFile(file, hand);
      hand.report(0.7);
      const up: PartUp = /\.(stl|ply)$/i.test(file.name) ? '+z' : '+y';
      const frame = bench.doc?.cast.frame;
      const bare = SetFormSchema.parse({ id: crypto.randomUUID(), form: 'part', x: frame?.x ?? 0, y: frame?.y ?? 0 });
      const { heights, height } = await seen(mesh, up, bare.size, hand);
      const blob = await putBlob(new Uint8Array(mesh));
      if (bench.doc?.id !== slab)
        throw new Error(`“${file.name}” isn’t laid: its slab was left before it was read. Lay it again there.`);
      // Counted now: others may have come while this one was read.
      if (bench.setForms.length >= MOST_SET_FORMS)
        throw new Error(`At most ${MOST_SET_FORMS} set forms lie on a slab at once; bake some first.`);
      tools.setFormId = bare.id;
      await bench.editSetForms((own) =>
        own.setForms.push({ ...bare, height, part: { name: file.name.slice(0, 120), mesh: blob, up, heights } }),
      );
    });
  }

  function turnUp(setForm: SetForm, up: PartUp): Promise<void> {
    return reading('Looking at it from above', async (hand) => {
      if (!setForm.part) return;
      const { heights, height } = await seen(await getBlob(setForm.part.mesh), up, setForm.size, hand);
      await bench.editSetForms((slab) => {
        const own = slab.setForms.find((p) => p.id === setForm.id);
        if (own?.part) Object.assign(own, { height, part: { ...own.part, up, heights } });
      });
    });
  }

  return { add, turnUp, problem, going };
});
