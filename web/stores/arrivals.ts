/**
 * Pictures that arrive from files, folders or the clipboard. Each is looked at by the server, becomes what it is
 * guessed to be, and can be made something else with a click. It goes on while one goes elsewhere.
 */
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { Arrival as Kind } from '#core/arrive';
import { middleBase, wholeBase } from '#core/marks';
import { guessUnit } from '#core/scan';
import {
  ALPHA_VERSION,
  AlphaSchema,
  ScanSchema,
  SheetSchema,
  SOURCE_VERSION,
  StepSchema,
  type Alpha,
} from '#core/settings';
import { spaced } from '#core/words';
import * as api from '../api/client';
import { isMeshFile, readScanFile, ReadingCancelled } from '../workers/meshFiles';
import { castAlpha, startRelief } from './castAlpha';
import { sentence, useConnection } from './connection';
import { useLibrary } from './library';
import { useWork, type WorkHand } from './work';
import { usePreferences } from './preferences';
import { postArrival, type Arrived } from '../api/arrivals';
import { UploadCancelled, type UploadHand } from '../api/upload';

export interface Arrival {
  key: number;
  name: string;
  state: 'pending' | 'reading' | 'in' | 'refused';
  /** Why it was refused. */
  problem: string | null;
  file: Arrived | null;
  /** What came, where it is a scan. */
  scan: string | null;
  /** What it is taken for now. */
  kind: Kind | null;
  made: { collection: 'alphas' | 'sources'; id: string }[];
}

/** Where what came can be worked on; null where nothing became of it yet. */
export function benchOf({ made: [first], scan }: Arrival): string | null {
  if (!first) return null;
  return `/bench/${first.collection === 'alphas' ? 'alpha' : scan ? 'scan' : 'sheet'}/${first.id}`;
}

/** A photograph of one thing: its pieces belong together, and crumbs are none of it. */
const ONE_THING = { join: 4, smallest: 12 };
const MOST_SURFACE_SIDE = 1024;

function stemOf(name: string): string {
  const stem = name.replace(/\.[^.]+$/, '').replace(/.*[\\/]/, '');
  return stem.trim().slice(0, 70) || 'Picture';
}

export const useArrivals = defineStore('arrivals', () => {
  const library = useLibrary();
  const { author } = usePreferences();
  const connection = useConnection();
  const work = useWork();
  const list = ref<Arrival[]>([]);
  let keys = 0;
  const pending: { key: number; file: File }[] = [];
  let running: Promise<void> | null = null;
  /** Who wants to hear what came of a file. */
  const outcomes = new Map<File, (why: string | null) => void>();

  const counts = computed(() => ({
    all: list.value.length,
    in: list.value.filter((a) => a.state === 'in').length,
    refused: list.value.filter((a) => a.state === 'refused').length,
    left: list.value.filter((a) => a.state === 'pending' || a.state === 'reading').length,
  }));

  function change(key: number, to: Partial<Arrival>): void {
    list.value = list.value.map((a) => (a.key === key ? { ...a, ...to } : a));
  }

  /**
   * One after the other; each that can't be read says why, and the others go on. Answers those of these files that came
   * in.
   */
  async function add(files: Iterable<File>): Promise<Arrival[]> {
    const mine = new Set<number>();
    for (const file of files) {
      const key = ++keys;
      mine.add(key);
      pending.push({ key, file });
      list.value = [
        ...list.value,
        {
          key,
          name: file.name || 'Picture',
          state: 'pending',
          problem: null,
          file: null,
          scan: null,
          kind: null,
          made: [],
        },
      ];
    }
    while (pending.some(({ key }) => mine.has(key)) || running) {
      running ??= work.run('Taking files in', 'arrivals', takeAll).finally(() => (running = null));
      await running;
    }
    return list.value.filter((a) => mine.has(a.key) && a.state === 'in');
  }

  /** One file that came by itself; answers why it was refused, null when it is in. */
  async function takeIn(file: File): Promise<string | null> {
    let refused: string | null = 'Taking it in was cancelled. Write it into the inbox again to have it taken.';
    outcomes.set(file, (why) => (refused = why));
    await add([file]);
    outcomes.delete(file);
    return refused;
  }

  async function takeAll(hand: WorkHand): Promise<void> {
    for (let done = 0; ; done++) {
      const next = pending.shift();
      if (!next) return;
      if (hand.cancelled) {
        list.value = list.value.filter((a) => a.state !== 'pending');
        pending.length = 0;
        return;
      }
      const of = done + 1 + pending.length;
      const told = (share: number, detail = ''): void =>
        hand.report((done + share) / of, [of > 1 ? `${done + 1} of ${of}` : '', detail].filter(Boolean).join(', '));
      told(0);
      if (isMeshFile(next.file)) await takeScan(next.key, next.file, hand, told);
      else await takeOne(next.key, next.file, { ...hand, report: told });
      tellOutcome(next);
    }
  }

  function tellOutcome({ key, file }: { key: number; file: File }): void {
    const row = list.value.find((a) => a.key === key);
    if (row?.state === 'in') outcomes.get(file)?.(null);
    else if (row?.problem) outcomes.get(file)?.(row.problem);
  }

  async function takeOne(key: number, file: File, hand: UploadHand): Promise<void> {
    change(key, { state: 'reading' });
    try {
      const arrived = await postArrival(file, hand);
      change(key, { file: arrived, kind: arrived.guess.kind });
      change(key, { made: await make(arrived, arrived.guess.kind), state: 'in' });
    } catch (error) {
      if (error instanceof UploadCancelled) return dismiss(key);
      connection.noticed(error);
      change(key, { state: 'refused', problem: sentence(error) });
    } finally {
      hand.onCancel(() => undefined);
    }
  }

  async function takeScan(
    key: number,
    file: File,
    hand: WorkHand,
    told: (share: number, detail: string) => void,
  ): Promise<void> {
    change(key, { state: 'reading' });
    try {
      const read = await readScanFile(file, { ...hand, report: (share, what) => told(share * 0.8, what) });
      told(0.85, 'Keeping it');
      const mesh = await api.putBlob(new Uint8Array(read.mesh));
      const what = read.ending.toUpperCase();
      const doc = ScanSchema.parse({
        version: SOURCE_VERSION,
        kind: 'scan',
        id: crypto.randomUUID(),
        card: { name: library.freeName('sources', stemOf(file.name)), author: author() },
        file: { name: file.name.slice(0, 200), what, broken: read.broken },
        mesh,
        vertices: read.vertices,
        triangles: read.triangles,
        coloured: read.coloured,
        perBody: read.perBody,
        unit: guessUnit(read.perBody * 2),
      });
      library.putSource(await api.save('sources', doc, null));
      change(key, {
        state: 'in',
        scan: `${what}, ${spaced(read.triangles)} faces`,
        made: [{ collection: 'sources', id: doc.id }],
      });
    } catch (error) {
      if (error instanceof ReadingCancelled) return dismiss(key);
      connection.noticed(error);
      change(key, { state: 'refused', problem: sentence(error) });
    } finally {
      hand.onCancel(() => undefined);
    }
  }

  /** Makes it something else; what it was goes. */
  async function become(key: number, kind: Kind): Promise<void> {
    const arrival = list.value.find((a) => a.key === key);
    if (!arrival?.file || arrival.state !== 'in' || arrival.kind === kind) return;
    const before = { kind: arrival.kind, made: arrival.made };
    change(key, { kind, state: 'reading', problem: null });
    try {
      // The name it had is free for what it becomes.
      for (const { collection, id } of before.made) await library.remove(collection, id);
      change(key, { made: await make(arrival.file, kind), state: 'in' });
    } catch (error) {
      connection.noticed(error);
      for (const { collection, id } of before.made) await library.restore(collection, id).catch(() => undefined);
      change(key, { ...before, state: 'in', problem: `It stays as it was. ${sentence(error)}` });
    }
  }

  async function make(file: Arrived, kind: Kind): Promise<Arrival['made']> {
    switch (kind) {
      case 'alpha':
        return [{ collection: 'alphas', id: (await makeAlpha(file)).id }];
      case 'sheet':
        return [{ collection: 'sources', id: await makeSheet(file, {}) }];
      case 'photo':
        return [{ collection: 'sources', id: await makeSheet(file, { find: ONE_THING }) }];
      case 'surface': {
        const sheet = await makeSheet(file, { marks: [] });
        return [
          { collection: 'alphas', id: await castSurface(file, sheet) },
          { collection: 'sources', id: sheet },
        ];
      }
    }
  }

  const titleOf = ({ name }: api.SheetFile): string => stemOf(name);

  async function makeAlpha(file: api.SheetFile): Promise<Alpha> {
    const heights = await api.postHeights(file.blob, file.name);
    const relief = heights.relief ?? startRelief('sheet');
    const doc = AlphaSchema.parse({
      ...heights,
      relief,
      version: ALPHA_VERSION,
      id: crypto.randomUUID(),
      card: { name: library.freeName('alphas', titleOf(file)), author: author() },
      lineage: { sourceId: null, sourceRevision: null, floor: 0, crown: relief },
    });
    const stored = await api.save('alphas', doc, null);
    library.putAlpha(stored);
    return stored.doc;
  }

  async function makeSheet({ blob, name, width, height, what }: api.SheetFile, more: object): Promise<string> {
    const doc = SheetSchema.parse({
      version: SOURCE_VERSION,
      kind: 'sheet',
      id: crypto.randomUUID(),
      card: { name: library.freeName('sources', titleOf({ blob, name, width, height, what })), author: author() },
      file: { blob, name, width, height, what },
      ...more,
    });
    library.putSource(await api.save('sources', doc, null));
    return doc.id;
  }

  async function castSurface(file: api.SheetFile, sourceId: string): Promise<string> {
    const base = middleBase(file);
    const size = Math.min(MOST_SURFACE_SIDE, 2 ** Math.floor(Math.log2(Math.max(32, base.width))));
    const card = { name: library.freeName('alphas', titleOf(file)), author: author(), tags: [], notes: '' };
    const steps = [StepSchema.parse({ kind: 'seamless', id: crypto.randomUUID() })];
    const cast = castAlpha(
      {
        id: crypto.randomUUID(),
        card,
        size,
        relief: startRelief('sheet'),
        format: 'grey16',
        recipe: { base, steps },
        made: null,
        source: { id: sourceId, revision: 1 },
      },
      null,
      () => undefined,
    );
    return (await cast.done).doc.id;
  }

  /**
   * A picture that is wanted as a form right away: it is taken for heights, whatever it looks like. Throws what it was
   * refused with.
   */
  async function asAlpha(file: File): Promise<Alpha> {
    return work.run(`Taking in “${file.name}”`, 'arrivals', async (hand) => makeAlpha(await postArrival(file, hand)));
  }

  /** A picture that is wanted as a sheet, whatever it looks like; answers its name. Throws what it was refused with. */
  async function asSheet(file: File): Promise<string> {
    return work.run(`Taking in “${file.name}”`, 'arrivals', async (hand) => {
      const id = await makeSheet(await postArrival(file, hand), {});
      return library.sources.find((source) => source.id === id)?.card.name ?? stemOf(file.name);
    });
  }

  /** All of a sheet's picture as an alpha, nothing cut out. */
  async function castWhole(sheet: {
    id: string;
    revision: number;
    name: string;
    file: api.SheetFile;
    size: number;
  }): Promise<Alpha> {
    const card = { name: library.freeName('alphas', sheet.name), author: author(), tags: [], notes: '' };
    return work.run(`Casting all of “${sheet.name}”`, sheet.id, async (hand) => {
      const cast = castAlpha(
        {
          id: crypto.randomUUID(),
          card,
          size: sheet.size,
          relief: startRelief('sheet'),
          format: 'grey16',
          recipe: { base: wholeBase(sheet.file), steps: [] },
          made: null,
          source: { id: sheet.id, revision: sheet.revision },
        },
        null,
        hand.report,
      );
      hand.onCancel(cast.cancel);
      return (await cast.done).doc;
    });
  }

  function dismiss(key: number): void {
    list.value = list.value.filter((a) => a.key !== key);
  }

  /** Those that came in or were refused leave the list; what they became stays. */
  function clear(): void {
    list.value = list.value.filter((a) => a.state === 'pending' || a.state === 'reading');
  }

  /** A page from a scanner. */
  const sheetOf = (file: api.SheetFile): Promise<string> => makeSheet(file, {});

  return { list, counts, add, takeIn, sheetOf, become, asAlpha, asSheet, castWhole, dismiss, clear };
});
