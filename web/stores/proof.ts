/**
 * The body that brushes are proved on. It and its strokes stay while one goes from brush to brush and place to place.
 */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, markRaw, ref, watch } from 'vue';
import { BODIES, BODY_DENSITIES, BODY_LABELS, trianglesAfter, type BodyDensity, type BodyName } from '#core/mesh';
import { linearOf } from '#core/colour';
import { filledLayer, type Layer } from '#core/paint';
import type { BrushAlphas } from '#core/stored';
import { StepCancelled } from '#core/timeline';
import { RefineUnderSchema, SymmetrySchema, type Brush, type RefineUnderSettings, type Symmetry } from '#core/settings';
import { bodyOfMesh, readBodyFile, ReadingCancelled } from '../workers/meshFiles';
import type { Opening } from '../workers/sculpt/messages';
import type { PaintDraftWorker } from '../api/paintDraft.worker';
import { unwrappedMesh } from '../workers/unwrapper';
import { textureInGlb } from '../workers/glbTexture';
import { readPaint, writePaint } from '../workers/paintFileThread';
import { PaintKeeper } from '../workers/paintKeeper';
import { Sculptor } from '../workers/sculptor';
import { startThread } from '../workers/thread';
import { useBodies } from './bodies';
import { sentence } from './connection';
import { useUnkept } from './unkept';
import { useWork, type WorkHand } from './work';
import { usePreferences } from './preferences';

/** How far the back of a cut lies under the body, body units. */
const CUT_THICKNESS = 0.02;
/** Bodies stand upright: copies go round them. */
const UPRIGHT = SymmetrySchema.parse({ axis: 'y' });
/** What shows where nothing is painted, in files. */
const CLAY = [0.78, 0.72, 0.66] as const;
/** A body is subdivided up to so many triangles. */
const MOST_TRIANGLES = 8_000_000;
/** What is done to the body that is made next, in the list of what goes on. */
const MAKING = 'the next body';

export const useProof = defineStore('proof', () => {
  const sculptor = markRaw(new Sculptor());
  sculptor.onReopen = (now) => (now.passing ? passing : opened).value++;
  const state = sculptor.state;
  const { undoBytes } = usePreferences();
  watch(undoBytes, (bytes) => void sculptor.limitUndo(bytes), { immediate: true });
  const paintDrafts = startThread<PaintDraftWorker>(
    new Worker(new URL('../api/paintDraft.worker.ts', import.meta.url), { type: 'module' }),
  ).worker;
  /** This window’s own. */
  const token = crypto.randomUUID();
  /** What is painted is in the browser’s store. */
  const paintDrafted = ref(true);
  const keeper = new PaintKeeper({
    draft: () => sculptor.paint.draft(),
    forget: () => sculptor.paint.forgetDraft(),
    keep: (body, draft) => paintDrafts.keep(body, token, draft),
    drafted: (all) => (paintDrafted.value = all),
    problem: (error) => (problem.value = `What you painted can’t be kept in this browser. ${sentence(error)}`),
  });
  watch(
    () => state.painted,
    () => keeper.changed(),
  );
  useUnkept().watch({ hurry: () => paintDrafted.value || void keeper.flush(), atRisk: () => !paintDrafted.value });
  /** A shipped body's name, or the id of one's own. */
  const name = useLocalStorage<string>('proof-body', 'ball');
  const density = useLocalStorage<BodyDensity>('proof-density', 300);
  /** How often the body is subdivided. */
  const levels = useLocalStorage('proof-levels', 0);
  const refine = useLocalStorage<RefineUnderSettings>('proof-refine', { on: false, edge: 0.012 });
  watch(refine, (now) => (sculptor.refine = now.on ? { edge: now.edge, most: MOST_TRIANGLES } : null), {
    immediate: true,
    deep: true,
  });
  const work = useWork();
  /** A body that is made or read from a file; null while none is, and while the first one is. */
  const making = computed(() => work.find(MAKING));
  const bodies = useBodies();
  const own = computed(() => bodies.own);
  const symmetry = useLocalStorage<Symmetry>('proof-symmetry', UPRIGHT);
  if (!SymmetrySchema.safeParse(symmetry.value).success) symmetry.value = UPRIGHT;
  const opening = ref(false);
  const problem = ref<string | null>(null);
  watch(
    () => bodies.problem,
    (now) => now && (problem.value = now),
  );
  /** Counts openings, so that views know to show the new body. */
  const opened = ref(0);
  /** Pieces were merged into it, and it was subdivided since. */
  const finerMerged = ref(false);
  /** Counts meshes that are shown in passing, under a stroke that is drawn. */
  const passing = ref(0);
  let started: Promise<void> | null = null;

  const finer = computed(() => trianglesAfter(state.triangles, 1) <= MOST_TRIANGLES);
  const label = computed(
    () => own.value.find((b) => b.id === name.value)?.name ?? BODY_LABELS[name.value as BodyName] ?? 'Body',
  );
  const about = computed(() => own.value.find((b) => b.id === name.value)?.report ?? null);

  function start(): Promise<void> {
    started ??= first();
    return started;
  }

  async function first(): Promise<void> {
    if (!RefineUnderSchema.safeParse(refine.value).success) refine.value = RefineUnderSchema.parse({});
    if (!BODY_DENSITIES.includes(density.value)) density.value = 300;
    if (!Number.isInteger(levels.value) || levels.value < 0 || levels.value > 4) levels.value = 0;
    const listed = bodies.load().catch(say);
    if (!knows(name.value)) await listed;
    if (!knows(name.value)) name.value = 'ball';
    await reopen(true).catch((error: unknown) => {
      // What is wrong is said; there is still something to stamp.
      say(error);
      name.value = 'ball';
      return reopen(true);
    });
  }

  function say(error: unknown): void {
    problem.value = sentence(error);
  }

  function knows(body: string): boolean {
    return (BODIES as readonly string[]).includes(body) || own.value.some((b) => b.id === body);
  }

  /** Throws StepCancelled where the hand gives it up; what was open stays. */
  async function reopen(fresh: boolean, hand: WorkHand | null = null): Promise<void> {
    opening.value = true;
    try {
      const onMerged = !fresh && (state.merged || finerMerged.value);
      if (fresh) await keeper.flush();
      const opening = await (onMerged ? openingMerged() : openingOf());
      const painting = fresh ? await paintingOf(name.value) : null;
      await sculptor.open({ ...opening, fresh, painting, paintedAs: name.value }, hand);
      finerMerged.value = onMerged;
      opened.value++;
    } finally {
      opening.value = false;
    }
  }

  /** The body that is shown, to be opened again beside it, with the triangles it has now. */
  async function openingNow(): Promise<Extract<Opening, { kind: 'body' }>> {
    if (opened.value === 0) return openingOf();
    const [mesh, painting] = [await sculptor.untouched(), await sculptor.paint.starting()];
    return {
      kind: 'body',
      body: { mesh },
      levels: 0,
      fresh: true,
      painting: painting && { ...painting, layers: [...painting.layers] },
    };
  }

  async function openingOf(): Promise<Extract<Opening, { kind: 'body' }>> {
    const isShipped = (BODIES as readonly string[]).includes(name.value);
    return {
      kind: 'body',
      body: await bodyOf(name.value),
      levels: levels.value,
      fresh: true,
      pieces: isShipped ? [] : await bodies.piecesOf(name.value),
    };
  }

  /** What is painted on a body: as it was left here, or as it was kept with it. */
  async function paintingOf(body: string): Promise<{ size: number; layers: Layer[] } | null> {
    const draft = await paintDrafts.read(body).catch(() => null);
    if (draft) return draft;
    return (BODIES as readonly string[]).includes(body) ? null : bodies.paintingOf(body);
  }

  async function bodyOf(body: string): Promise<{ name: BodyName; density: number } | { mesh: ArrayBuffer }> {
    if ((BODIES as readonly string[]).includes(body)) return { name: body as BodyName, density: density.value };
    return { mesh: await bodies.meshOf(body) };
  }

  /** The body as it is with what was merged into it, subdivided once more. */
  async function openingMerged(): Promise<Extract<Opening, { kind: 'body' }>> {
    const mesh = await sculptor.untouched();
    return { kind: 'body', body: { mesh }, levels: 1, fresh: true, pieces: 'merged' };
  }

  /** What was merged is of the body's present faces: neither its form nor fewer faces are to be had again. */
  function merged(): boolean {
    const is = state.merged || finerMerged.value;
    if (is)
      problem.value = `Pieces were merged into this body, so its density stays. ${
        state.merged ? 'Undo the merge first, or subdivide it.' : 'It can be subdivided, or kept as a body of its own.'
      }`;
    return is;
  }

  /** Changes what is shown; when it can't be, what was there stays. Strokes are run again on the new body. */
  async function change(to: { name?: string; density?: BodyDensity; levels?: number }): Promise<boolean> {
    const before = { name: name.value, density: density.value, levels: levels.value };
    name.value = to.name ?? before.name;
    density.value = to.density ?? before.density;
    levels.value = to.levels ?? 0;
    problem.value = null;
    try {
      started = work.run(`Making “${label.value}”`, MAKING, (hand) => reopen(name.value !== before.name, hand));
      await started;
      return true;
    } catch (error) {
      name.value = before.name;
      density.value = before.density;
      levels.value = before.levels;
      started = Promise.resolve();
      if (!(error instanceof StepCancelled)) say(error);
      return false;
    }
  }

  /** Another body begins untouched; the same one at another density keeps its strokes. */
  async function show(body: string, cells: BodyDensity): Promise<void> {
    if (body === name.value && cells !== density.value && merged()) return;
    await change({ name: body, density: cells });
  }

  async function subdivide(): Promise<void> {
    if (finer.value) await change({ levels: levels.value + 1 });
  }

  async function stepDown(): Promise<void> {
    if (levels.value > 0 && !merged()) await change({ levels: levels.value - 1 });
  }

  /** A body of one's own from a file; a file that can't be one says so and changes nothing. */
  async function bring(file: File): Promise<void> {
    problem.value = null;
    opening.value = true;
    try {
      const read = await work.run(`Reading “${file.name}”`, MAKING, (hand) => readBodyFile(file, hand));
      const { id } = await bodies.keep(read);
      await show(id, density.value);
      await bringTexture(file);
    } catch (error) {
      if (!(error instanceof ReadingCancelled)) say(error);
    } finally {
      opening.value = false;
    }
  }

  /** A file’s own texture is the first layer. One that is missing or broken says so, and the body is there. */
  async function bringTexture(file: File): Promise<void> {
    const found = /\.glb$/i.test(file.name) ? textureInGlb(await file.arrayBuffer()) : null;
    if (!found) return;
    if (typeof found === 'string') throw new Error(found);
    const name = file.name.replace(/\.glb$/i, '');
    const { size, layers } = await readPaint(new File([found.bytes], `${name}, texture`, { type: found.type }));
    await sculptor.paint.bring(size, layers);
  }

  /**
   * Cuts what is masked off as a body of its own; answers its name, or null when nothing is masked. A cut that can't
   * be kept stays on the body.
   */
  async function cutOff(of: string): Promise<string | null> {
    const cut = await sculptor.cutOff(CUT_THICKNESS);
    if (!cut) return null;
    try {
      return (await bodies.keep(await bodyOfMesh(`${of}, cut off`, cut))).name;
    } catch (error) {
      if (await sculptor.uncut()) throw error;
      throw new Error(
        `${sentence(error)} The body was worked on since; undo back to the cut to have the cut on it again.`,
      );
    }
  }

  /** The body as it is now, with its pieces, as one of one's own; it is shown from then on. */
  async function keepBody(wanted: string): Promise<string> {
    const mesh = await sculptor.sculpted();
    const { triangles } = state;
    const row = await bodies.keep({
      id: crypto.randomUUID(),
      name: wanted,
      addedAt: Date.now(),
      mesh,
      triangles,
      report: about.value ?? { merged: 0, dropped: 0, open: 0, components: 1 },
      pieces: [...sculptor.pieces.values()],
      painting: await sculptor.paint.packed(),
    });
    await show(row.id, density.value);
    return row.name;
  }

  /**
   * The body as it is sculpted, unwrapped with care, as one of one’s own that is shown from then on; answers its name.
   * What is painted goes along.
   */
  async function unwrap(): Promise<string> {
    const [mesh, painted] = await Promise.all([sculptor.sculpted(), sculptor.paint.layers()]);
    const { triangles } = state;
    const { label: of, about: report } = { label: label.value, about: about.value };
    const made = await work.run(`Unwrapping “${of}”`, name.value, (hand) => unwrappedMesh(mesh, painted, hand));
    const row = await bodies.keep({
      id: crypto.randomUUID(),
      name: `${of}, unwrapped`.slice(0, 74),
      addedAt: Date.now(),
      mesh: made.mesh,
      triangles,
      report: report ?? { merged: 0, dropped: 0, open: 0, components: 1 },
      pieces: [...sculptor.pieces.values()],
      painting: made.painting,
    });
    await show(row.id, density.value);
    return `“${row.name}” has ${made.charts} islands.`;
  }

  /** What is painted on the body, over the clay, as a PNG of 8 bits; null where nothing is. */
  async function texturePng(): Promise<Uint8Array<ArrayBuffer> | null> {
    const found = await sculptor.paint.layers();
    if (!found) return null;
    const ground = filledLayer('ground', found.size, linearOf(CLAY));
    const png = await writePaint('png8', found.size, [ground, ...found.layers]);
    return new Uint8Array(await png.arrayBuffer());
  }

  /** What is painted, clear where nothing is; null where all is clear. */
  async function paintedPicture(): Promise<File | null> {
    const found = await sculptor.paint.layers();
    if (!found || found.layers.every(({ tiles }) => tiles.size === 0)) return null;
    const png = await writePaint('png8', found.size, found.layers);
    return new File([png], `${label.value}, painting.png`, { type: 'image/png' });
  }

  /** Takes a body of one's own off the list; answers how that is taken back. */
  async function forget(id: string): Promise<() => Promise<void>> {
    const shown = name.value === id;
    if (shown) await show('ball', density.value);
    const back = await bodies.forget(id);
    return async () => {
      await back();
      if (shown) await show(id, density.value);
    };
  }

  function editMask(kind: 'mask-invert' | 'mask-clear'): Promise<void> {
    return sculptor.edits.makeEdit({ kind });
  }

  /** Whether strokes that are on the body follow their brush’s settings, or keep those they were drawn with. */
  const follows = useLocalStorage('proof-follows', true);
  async function setFollows(on: boolean): Promise<void> {
    follows.value = on;
    await sculptor.letStay(!on);
  }

  /** Gives the brush's settings to the body and runs its strokes again with them. */
  async function follow(brush: Brush, alphas: BrushAlphas): Promise<void> {
    await start();
    await sculptor.replay(brush, alphas);
  }

  return {
    sculptor,
    state,
    name,
    density,
    levels,
    own,
    refine,
    label,
    about,
    finer,
    symmetry,
    opening,
    opened,
    passing,
    problem,
    start,
    show,
    subdivide,
    stepDown,
    bring,
    cutOff,
    keepBody,
    paintDrafted,
    making,
    texturePng,
    paintedPicture,
    unwrap,
    forget,
    editMask,
    knows,
    openingNow,
    follow,
    follows,
    setFollows,
  };
});
