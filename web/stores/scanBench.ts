/**
 * The scan on the bench: its mesh as the document names it, what was found about it and its mends, and its patches. The
 * mesh that is shown follows the document, so that undo takes mends back like everything else.
 */
import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef } from 'vue';
import type { MeshArrays } from '#core/mesh';
import { levelNormal, type ScanReport, type Vec3 } from '#core/scan';
import { MILLIMETRES, MOST_PATCHES, PatchSchema, type Patch, type Scan } from '#core/settings';
import { spaced } from '#core/words';
import * as api from '../api/client';
import type { Mend } from '../workers/scan.worker';
import { ScanThread } from '../workers/scanThread';
import { sentence, useConnection } from './connection';
import { useSourceDoc } from './sourceDoc';
import { useWork } from './work';

/** A patch that is laid by one click is so large, body units. */
const FIRST_SIDE = 0.5;
/** The surface is levelled over this share of the frame’s half side. */
const LEVELLED = 0.8;

class MendCancelled extends Error {}

export const useScanBench = defineStore('scan-bench', () => {
  const connection = useConnection();
  const work = useWork();
  const own = useSourceDoc<Scan>({ togetherMs: 900, onChange: () => void follow() });
  const { doc, problem } = own;
  const { edit } = own.history;
  const thread = shallowRef<ScanThread | null>(null);
  /** The mesh that is shown, and the document’s name for it. */
  const mesh = shallowRef<MeshArrays | null>(null);
  const shown = ref<string | null>(null);
  const report = shallowRef<ScanReport | null>(null);
  const chosenId = ref<string | null>(null);
  /** The next press on the scan lays a patch. */
  const laying = ref(false);
  let following: Promise<void> | null = null;

  const chosen = computed(() => doc.value?.patches.find(({ id }) => id === chosenId.value) ?? null);
  const mending = computed(() => work.find(`mend of ${doc.value?.id}`));

  async function open(id: string): Promise<void> {
    close();
    await own.open(id, 'scan', async () => {
      begin();
      chosenId.value = doc.value?.patches[0]?.id ?? null;
      laying.value = doc.value?.patches.length === 0;
      await follow();
    });
  }

  function begin(): void {
    thread.value = markRaw(new ScanThread());
    following = null;
    shown.value = null;
  }

  function close(): void {
    own.close();
    thread.value?.close();
    thread.value = null;
    mesh.value = null;
    shown.value = null;
    report.value = null;
    chosenId.value = null;
    laying.value = false;
  }

  const revert = (): Promise<void> => own.revert(open);

  /** Shows the mesh that the document names; whoever comes while one is on its way waits for the newest. */
  function follow(): Promise<void> {
    const on = thread.value;
    if (!on || !doc.value || (doc.value.mesh === shown.value && !following)) return Promise.resolve();
    following ??= load(on).finally(() => {
      if (thread.value === on) following = null;
    });
    return following;
  }

  async function load(on: ScanThread): Promise<void> {
    try {
      while (thread.value === on && doc.value && doc.value.mesh !== shown.value) {
        const wanted = doc.value.mesh;
        const bytes = await api.getBlob(wanted);
        if (thread.value !== on) return;
        await on.open(bytes);
        if (thread.value !== on) return;
        shown.value = wanted;
        mesh.value = on.mesh;
        report.value = null;
        const found = await on.report();
        if (thread.value === on && shown.value === wanted) report.value = found;
      }
    } catch (error) {
      if (thread.value !== on) return;
      connection.noticed(error);
      problem.value = `The scan can’t be shown. ${sentence(error)}`;
    }
  }

  /** One click: what comes of it is kept, and shown. What is changed or left meanwhile wins. */
  async function mend(what: string, mend: Mend): Promise<void> {
    const on = thread.value;
    if (!doc.value || !on || mending.value) return;
    const { id } = doc.value;
    problem.value = null;
    try {
      await work.run(what, `mend of ${id}`, async (hand) => {
        await follow();
        const from = doc.value?.mesh;
        if (thread.value !== on || shown.value !== from) return;
        const cancelled = new Promise<never>((_, fail) => hand.onCancel(() => fail(new MendCancelled())));
        hand.report(0.1, 'Working');
        const made = await Promise.race([on.mend(mend), cancelled]);
        hand.report(0.6, 'Keeping it');
        const hash = await Promise.race([api.putBlob(new Uint8Array(made.mesh)), cancelled]);
        if (thread.value !== on || doc.value?.mesh !== from) return;
        edit(`${what} ${hash}`, (scan) => {
          scan.mesh = hash;
          scan.vertices = made.vertices;
          scan.triangles = made.triangles;
        });
        await follow();
        if (mend.kind === 'thin') problem.value = heldBack(mend.triangles, made.triangles);
      });
    } catch (error) {
      if (thread.value !== on) return;
      if (error instanceof MendCancelled) return restart();
      connection.noticed(error);
      problem.value = `The scan stays as it was. ${sentence(error)}`;
    }
  }

  /** The worker is busy with what nobody waits for any more: another one takes its place. */
  async function restart(): Promise<void> {
    thread.value?.close();
    begin();
    await follow();
  }

  /** Body units in what one millimetre of the real thing is. */
  const millimetres = computed(() => (doc.value ? doc.value.perBody * MILLIMETRES[doc.value.unit] : 1));

  const xyz = ([x, y, z]: Vec3): { x: number; y: number; z: number } => ({ x, y, z });

  /** Lays a patch on the surface at a place; answers its id, or null when there are too many. */
  function lay(at: Vec3, face: Vec3, side = FIRST_SIDE): string | null {
    if (!doc.value || !mesh.value) return null;
    if (doc.value.patches.length >= MOST_PATCHES) {
      problem.value = `At most ${MOST_PATCHES} patches a scan; remove one first.`;
      return null;
    }
    const like = chosen.value;
    const patch = PatchSchema.parse({
      id: crypto.randomUUID(),
      name: freeName(doc.value.patches),
      at: xyz(at),
      normal: xyz(levelNormal(mesh.value, at, face, (side / 2) * LEVELLED)),
      cast: { size: like?.cast.size, samples: like?.cast.samples, frame: { side } },
      detrend: like?.detrend ?? {},
    });
    edit(`lay ${patch.id}`, (scan) => scan.patches.push(patch));
    chosenId.value = patch.id;
    laying.value = false;
    return patch.id;
  }

  /** `held` while the hand holds on to it: then it is one step, however long it takes. */
  function editPatch(id: string, label: string, change: (patch: Patch) => void, held = false): void {
    edit(
      `${label} ${id}`,
      (scan) => {
        const patch = scan.patches.find((p) => p.id === id);
        if (patch) change(patch);
      },
      { held },
    );
  }

  /** Along the surface; it lies as the surface does there. */
  function move(id: string, at: Vec3, face: Vec3, label = 'move'): void {
    const on = mesh.value;
    if (!on) return;
    editPatch(
      id,
      label,
      (patch) => {
        patch.at = xyz(at);
        patch.normal = xyz(levelNormal(on, at, face, (patch.cast.frame.side / 2) * LEVELLED));
      },
      true,
    );
  }

  /** Turned as the surface under all of it lies. */
  function level(id: string, label = 'level'): void {
    const patch = doc.value?.patches.find((p) => p.id === id);
    if (!patch || !mesh.value) return;
    const { at, normal } = patch;
    const found = levelNormal(
      mesh.value,
      [at.x, at.y, at.z],
      [normal.x, normal.y, normal.z],
      (patch.cast.frame.side / 2) * LEVELLED,
    );
    editPatch(id, label, (p) => (p.normal = xyz(found)), label !== 'level');
  }

  function remove(id: string): void {
    const at = doc.value?.patches.findIndex((p) => p.id === id) ?? -1;
    if (at < 0) return;
    edit(`remove ${id}`, (scan) => (scan.patches = scan.patches.filter((p) => p.id !== id)));
    if (chosenId.value === id)
      chosenId.value = doc.value!.patches[Math.min(at, doc.value!.patches.length - 1)]?.id ?? null;
  }

  const { past, future, undo, redo } = own.history;
  return {
    ...own,
    past,
    future,
    edit,
    undo,
    redo,
    open,
    close,
    revert,
    thread,
    mesh,
    shown,
    report,
    chosenId,
    chosen,
    laying,
    mending,
    millimetres,
    mend,
    lay,
    move,
    level,
    editPatch,
    remove,
  };
});

function freeName(patches: readonly Patch[]): string {
  for (let n = 1; ; n++) if (!patches.some(({ name }) => name === `Patch ${n}`)) return `Patch ${n}`;
}

/** Why thinning out stopped far from what was asked for; null where it didn't. */
function heldBack(wanted: number, got: number): string | null {
  if (got <= wanted * 1.1) return null;
  return `Thinned out to ${spaced(got)} faces, not ${spaced(wanted)}: rims, and edges between faces that don’t agree, stay. Fill holes, turn faces or drop loose bits, then thin it out again.`;
}
