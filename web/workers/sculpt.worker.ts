/** Owns the memory of one body and the sculpting session on it. Answers every call with what changed. */
import * as Comlink from 'comlink';
import { alphaForm, resolveBrush, type AlphaForm, type AlphaKind, type PartForm } from '#core/brush';
import { readMesh } from '#core/formats';
import { boxUnwrap, buildMesh, paintableBody, subdivide, type RawMesh } from '#core/mesh';
import type { Brush } from '#core/settings';
import {
  bringPainting,
  bringPieces,
  abandon,
  beginStroke,
  endStroke,
  extendStroke,
  firstAgain,
  redo,
  refineUnderAll,
  refineUnderLast,
  retrace,
  session,
  startingLayers,
  startingSize,
  startingPieces,
  takeUpSteps,
  undo,
} from '#core/session';
import { follow, limitUndo, partOf, type OnProgress } from '#core/timeline';
import { clay, addEarlierStep, readHistory } from '#core/slab';
import { finish, surface } from '#core/sculpt';
import type { RefineUnder, Sample, StrokeStart } from '#core/stroke';
import type { Cancelled } from './castResult';
import { bodyCalls } from './sculpt/bodyCalls';
import { clayCalls } from './sculpt/clayCalls';
import { finer, wantFiner } from './sculpt/finer';
import { paintCalls } from './sculpt/paintCalls';
import {
  brushes,
  change,
  clayOrNull,
  following,
  orCancelled,
  colours,
  current,
  forms,
  state,
  neededForms,
  onBareClay,
  opened,
  partForms,
  partMeshes,
} from './sculpt/state';
import type { Begin, Change, Followed, Opened, Opening } from './sculpt/messages';

/**
 * A mesh without coordinates, or with some outside the square, is unwrapped along the axes, before it is subdivided: so
 * its texture lies alike on every level, and each time that it is opened.
 */
function paintable(mesh: RawMesh): RawMesh {
  if (mesh.carried?.coordinates?.every((x) => x >= 0 && x <= 1)) return mesh;
  return { ...mesh, carried: { coordinates: boxUnwrap(mesh), groups: mesh.carried?.groups ?? null } };
}

/** The body as it is sculpted: at its own density, subdivided as often as asked. */
function bodyOf({ body: of, levels }: Extract<Opening, { kind: 'body' }>, onProgress: OnProgress): RawMesh {
  let raw = 'name' in of ? paintableBody(of.name, of.density) : paintable(readMesh(of.mesh));
  for (let level = 0; level < levels; level++) {
    follow(onProgress, level / levels);
    raw = subdivide(raw);
  }
  return raw;
}

/** Throws StepCancelled; a body that can’t be opened leaves the one that is open. */
function openBody(opening: Extract<Opening, { kind: 'body' }>, onProgress: OnProgress): Opened {
  const { pieces = [], fresh } = opening;
  const before = fresh ? null : state.open;
  const from = before && pieces === 'merged' ? firstAgain(before) : 0;
  const steps = before?.done.slice(from).map((d) => d.step) ?? [];
  const raw = bodyOf(opening, partOf(onProgress, 0, 0.2));
  follow(onProgress, 0.2);
  const next = session(finish(surface(buildMesh(raw, { unfinished: true }))), {
    replay: true,
    meshes: partMeshes,
    undoLimit: state.undoLimit,
  });
  follow(onProgress, 0.4);
  const { painting = null } = opening;
  if (painting) bringPainting(next, painting.size, painting.layers);
  // What was painted goes along with the strokes that painted it.
  else if (before?.painting) bringPainting(next, startingSize(before), startingLayers(before));
  if (painting && next.painting) state.drafted.tiles.draftedAs(next.painting);
  bringPieces(next, pieces !== 'merged' ? pieces : before ? startingPieces(before) : []);
  const under = takeUpSteps(next, steps, partOf(onProgress, 0.4, 0.8));
  refineUnderAll(next, under, partOf(onProgress, 0.8, 1));
  follow(onProgress, 1);
  state.drafted.as = opening.paintedAs ?? null;
  state.open = next;
  return opened();
}

function withBrush({ brushId, ...start }: Begin): StrokeStart {
  const brush = brushes.get(brushId);
  if (!brush) throw new Error('The brush is not loaded.');
  return { ...start, brush };
}

/** A stroke that can't go on is taken back whole, and that is told. */
function whole<T>(act: () => T): T {
  try {
    return act();
  } catch (error) {
    state.stroke = null;
    abandon(current());
    throw error;
  }
}

function drawWhole(start: Begin, samples: Sample[]): void {
  wantFiner(null);
  state.stroke = null;
  beginStroke(current(), withBrush(start));
  whole(() => retrace(current(), samples));
}

/** Once it is kept the stroke stays, also where there is no room to refine under it. */
function endRunning(refine: RefineUnder | null): Change {
  state.stroke = null;
  const under = onBareClay(() => whole(() => endStroke(current(), clayOrNull() ? null : refine).under));
  if (under) refineUnderLast(current(), under);
  return change();
}

const api = {
  /** `word` is one shared number: the call that the page gives up. */
  watch(word: SharedArrayBuffer): void {
    state.givenUp = new Int32Array(word);
  },
  open(opening: Opening, call: number, told: Followed['told']): Opened | Cancelled {
    state.stroke = null;
    if (opening.kind === 'body') return orCancelled(() => openBody(opening, following({ call, told })));
    state.open = null;
    state.setForms = [];
    state.told.beside = null;
    const { cells, places, mask, upper, history } = opening;
    const slab = clay({
      cells,
      places: places && new Float32Array(places),
      mask: mask && new Float32Array(mask),
      upper,
    });
    limitUndo(slab, state.undoLimit);
    if (history) for (const before of readHistory(history, slab.surface.mesh)) addEarlierStep(slab, before);
    state.open = slab;
    return opened();
  },
  state(): Change {
    return change();
  },
  /** What strokes may keep for undo, of what is open and of what will be. */
  limitUndo(bytes: number): Change | null {
    state.undoLimit = bytes;
    if (!state.open) return null;
    limitUndo(state.open, bytes);
    return change();
  },

  sendForm(alphaId: string, alpha: AlphaKind, bytes: ArrayBuffer): void {
    forms.set(alphaId, alphaForm(alpha, bytes));
  },
  sendColours(alphaId: string, size: number, bytes: ArrayBuffer): void {
    if (bytes.byteLength !== size * size * 4)
      throw new Error(`The colours of this alpha are ${bytes.byteLength} bytes; ${size} × ${size} pixels need more.`);
    colours.set(alphaId, { size, rgba: new Uint8Array(bytes) });
  },
  sendPart(head: PartForm['head'], mesh: ArrayBuffer): void {
    const read = readMesh(mesh);
    partForms.set(head.id, { head, mesh: read });
    partMeshes.set(head.mesh, read);
  },
  /** Of a piece that strokes may go on. */
  sendPieceMesh(hash: string, mesh: ArrayBuffer): void {
    partMeshes.set(hash, readMesh(mesh));
  },
  setBrush(brush: Brush): void {
    const of = (id: string | null): AlphaForm | null => (id === null ? null : (forms.get(id) ?? null));
    const form = of(brush.form.alphaId);
    const own = brush.form.alphaId === null ? undefined : colours.get(brush.form.alphaId);
    if (form && own) form.colours = own;
    brushes.set(
      brush.id,
      resolveBrush(brush, form, of(brush.tooth.alphaId), (id) => partForms.get(id) ?? null),
    );
  },

  /**
   * Lets go of the alphas that aren't named and that no stroke here needs, and of brushes with them; answers those that
   * stay.
   */
  keepForms(ids: string[]): string[] {
    const needed = neededForms(ids);
    for (const [id, { ofAlpha, tooth }] of brushes)
      if ((ofAlpha && !needed.has(ofAlpha)) || (tooth && !needed.has(tooth.picture))) brushes.delete(id);
    for (const [id, form] of forms) if (!needed.has(form.pyramid)) forms.delete(id);
    return [...forms.keys()];
  },

  /** `refine` shows finer triangles under the stroke while it is drawn. Later orders of the stroke name it by `id`. */
  begin(id: number, start: Begin, samples: Sample[], refine: RefineUnder | null): Change {
    wantFiner(refine);
    beginStroke(current(), withBrush(start));
    state.stroke = id;
    whole(() => extendStroke(current(), samples));
    return change();
  },
  extend(id: number, samples: Sample[]): Change {
    if (state.stroke !== id) return change();
    whole(() => {
      extendStroke(current(), samples);
      finer();
    });
    return change();
  },
  /** `refine` splits and joins triangles of a body under the stroke. */
  end(id: number, refine: RefineUnder | null): Change {
    return state.stroke === id ? endRunning(refine) : change();
  },
  /** Lays a stroke as a whole, in place of the one that is shown. */
  drawPath(start: Begin, samples: Sample[]): Change {
    drawWhole(start, samples);
    return change();
  },
  keepPath(start: Begin, samples: Sample[], refine: RefineUnder | null): Change {
    drawWhole(start, samples);
    return endRunning(refine);
  },

  /** A stroke that is shown is taken back before what was done. */
  undo(): Change {
    state.stroke = null;
    onBareClay(() => undo(current()));
    return change();
  },
  redo(): Change {
    onBareClay(() => redo(current()));
    return change();
  },
  abandon(): Change {
    state.stroke = null;
    if (current().running) abandon(current());
    onBareClay(() => undefined);
    return change();
  },
  ...clayCalls,
  ...bodyCalls,
  ...paintCalls,
};

export type SculptWorker = typeof api;
Comlink.expose(api);
