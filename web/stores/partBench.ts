/**
 * The part on the bench: its mesh as the document names it, brought down to another budget from what was captured, its
 * seat, and how it stands. What is shown follows the document, so that undo takes everything back.
 */
import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef } from 'vue';
import type { RawMesh } from '#core/mesh';
import { seatFields, seatedExtents, seatOf, type GroundShape, type PartReport, type Seat } from '#core/part';
import type { Budget, Part, PartSeat } from '#core/settings';
import * as api from '../api/client';
import { partDrafts } from '../api/drafts';
import { plain } from '../api/plain';
import type { PartMend, Reduced } from '../workers/part.worker';
import { PartThread, type Standing } from '../workers/partThread';
import { sentence, useConnection } from './connection';
import { useHistory } from './history';
import { oneAtATime } from './oneAtATime';
import { useOpenDocument } from './openDocument';
import { useWork } from './work';

const DRAFT_DELAY_MS = 350;
const TOGETHER_MS = 900;

class Cancelled extends Error {}

export const usePartBench = defineStore('part-bench', () => {
  const connection = useConnection();
  const work = useWork();
  const own = useOpenDocument<'parts', Part>({
    collection: 'parts',
    what: () => 'part',
    drafts: partDrafts,
    draftMs: DRAFT_DELAY_MS,
    send: (doc, on) => api.save('parts', doc, on),
    closed: (): void => history.close(),
  });
  const { doc, problem } = own;
  const history = useHistory<Part>(doc, {
    togetherMs: TOGETHER_MS,
    put: (next) => {
      doc.value = next;
      own.touched();
      void follow();
    },
  });
  const thread = shallowRef<PartThread | null>(null);
  /** The document’s name for the mesh that the worker has. */
  let shown: string | null = null;
  /** The budget that the hand asks for, until the part is brought down to it. */
  const wanted = ref<Budget | null>(null);
  const ground = ref<GroundShape>({ bend: 0 });
  /** Share of the view, from the left, in which the part is seen as it was captured. */
  const split = ref(0);
  const after = shallowRef<Standing | null>(null);
  const before = shallowRef<Standing | null>(null);
  const report = shallowRef<PartReport | null>(null);
  const raw = shallowRef<RawMesh | null>(null);

  const budget = computed(() => wanted.value ?? doc.value?.budget ?? null);
  const reducing = computed(() => work.find(`part ${doc.value?.id}`));
  const busy = computed(() => wanted.value !== null || reducing.value !== null);
  const size = computed(() => (raw.value && doc.value ? seatedExtents(raw.value, seatOf(doc.value.seat)).size : null));

  async function open(id: string): Promise<void> {
    close();
    await own.open(id, undefined, async () => {
      history.resume();
      thread.value = markRaw(new PartThread());
      await follow();
    });
  }

  function close(): void {
    void own.close();
    thread.value?.close();
    thread.value = null;
    shown = null;
    wanted.value = null;
    for (const value of [after, before, report, raw]) value.value = null;
    split.value = 0;
    ground.value = { bend: 0 };
  }

  const revert = (): Promise<void> => own.revert(open);

  /** Shows what the document and the hand say now; whoever comes while it is done waits for the newest. */
  const follow = oneAtATime(followNow, () => thread.value);

  async function followNow(): Promise<void> {
    const on = thread.value;
    if (!on || !doc.value) return;
    try {
      const { mesh, whole, seat } = plain(doc.value);
      if (shown !== mesh) {
        if (shown === null) await on.open(await api.getBlob(whole), await api.getBlob(mesh));
        else await on.show(await api.getBlob(mesh));
        if (thread.value !== on) return;
        shown = mesh;
        raw.value = await on.mesh();
      }
      await standNow(on, seat);
      if (thread.value !== on) return;
      const found = await on.report(seat);
      if (thread.value === on) report.value = found;
    } catch (error) {
      if (thread.value !== on) return;
      connection.noticed(error);
      problem.value = `The part can’t be shown. ${sentence(error)}`;
    }
  }

  async function standNow(on: PartThread, seat: PartSeat): Promise<void> {
    const shape = plain(ground.value);
    const stands = await on.stand(seat, shape, false);
    if (thread.value !== on) return;
    after.value = stands;
    if (split.value <= 0) {
      before.value = null;
      return;
    }
    const was = await on.stand(seat, shape, true);
    if (thread.value === on) before.value = was;
  }

  const stand = oneAtATime(
    async () => {
      const on = thread.value;
      if (!on || !doc.value || shown === null) return;
      await standNow(on, plain(doc.value.seat)).catch((error: unknown) => (problem.value = sentence(error)));
    },
    () => thread.value,
  );

  function setSplit(share: number): void {
    const first = split.value <= 0 && share > 0;
    split.value = Math.max(0, Math.min(1, share));
    if (first) void stand();
  }

  function bend(by: number): void {
    ground.value = { bend: Math.max(-1, Math.min(1, by)) };
    void stand();
  }

  /** Brings the part down to this budget; only the newest one that is asked for is kept. */
  function setBudget(next: Budget): void {
    wanted.value = next;
    void settled();
  }

  const settled = oneAtATime(reduceNow, () => thread.value);

  async function reduceNow(): Promise<void> {
    const target = wanted.value && plain(wanted.value);
    if (!target) return;
    await change(
      'Reducing the part',
      (on) => on.reduce(target),
      `budget ${target.way}`,
      (part) => {
        part.budget = target;
      },
    );
    // The hand may have asked for another one meanwhile: that one is on its way.
    if (wanted.value && JSON.stringify(wanted.value) === JSON.stringify(target)) wanted.value = null;
  }

  function mend(mend: PartMend): Promise<void> {
    const what = mend === 'close' ? 'Closing the part' : 'Turning faces';
    return change(
      what,
      (on) => on.mend(mend),
      `mend ${mend}`,
      () => undefined,
    );
  }

  /** Makes another mesh of it and keeps that; what is left meanwhile wins. */
  async function change(
    what: string,
    act: (on: PartThread) => Promise<Reduced>,
    label: string,
    also: (part: Part) => void,
  ): Promise<void> {
    const on = thread.value;
    if (!doc.value || !on) return;
    const { id } = doc.value;
    problem.value = null;
    try {
      await follow();
      await work.run(what, `part ${id}`, async (hand) => {
        const cancelled = new Promise<never>((_, fail) => hand.onCancel(() => fail(new Cancelled())));
        cancelled.catch(() => undefined);
        hand.report(0.1, 'Working');
        const made = await Promise.race([act(on), cancelled]);
        const hash = await Promise.race([api.putBlob(new Uint8Array(made.mesh)), cancelled]);
        if (thread.value !== on) return;
        history.edit(label, (part) => {
          part.mesh = hash;
          part.triangles = made.triangles;
          part.error = made.error;
          also(part);
        });
      });
      await follow();
    } catch (error) {
      if (thread.value !== on) return;
      wanted.value = null;
      if (error instanceof Cancelled) return restart();
      connection.noticed(error);
      problem.value = `The part stays as it was. ${sentence(error)}`;
    }
  }

  /** The worker is busy with what nobody waits for any more: another one takes its place. */
  async function restart(): Promise<void> {
    thread.value?.close();
    thread.value = markRaw(new PartThread());
    shown = null;
    await follow();
  }

  /** Also what the hand asked for last. */
  async function save(): Promise<boolean> {
    await settled();
    return own.save();
  }

  function editSeat(label: string, change: (seat: PartSeat) => void, held = false): void {
    history.edit(`seat ${label}`, (part) => change(part.seat), { held });
  }

  /** Seats it as `how` says, from its mesh and the seat that it has. */
  function reseat(label: string, how: (mesh: RawMesh, now: Seat) => Seat): void {
    if (!raw.value || !doc.value) return;
    try {
      const fields = seatFields(how(raw.value, seatOf(doc.value.seat)));
      editSeat(label, (seat) => Object.assign(seat, fields));
    } catch (error) {
      problem.value = sentence(error);
    }
  }

  function travel(direction: 'undo' | 'redo'): void {
    wanted.value = null;
    history[direction]();
  }

  const { past, future } = history;
  return {
    ...own,
    past,
    future,
    edit: history.edit,
    undo: () => travel('undo'),
    redo: () => travel('redo'),
    open,
    close,
    revert,
    save,
    thread,
    after,
    before,
    report,
    raw,
    size,
    split,
    setSplit,
    ground,
    bend,
    budget,
    setBudget,
    busy,
    reducing,
    mend,
    editSeat,
    reseat,
  };
});
