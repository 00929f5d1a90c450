/** Owns the memory of one body and the sculpting session on it. Answers every call with what changed. */
import * as Comlink from 'comlink';
import { alphaForm, resolveBrush, type AlphaForm, type AlphaKind } from '#core/brush';
import { readMesh } from '#core/formats';
import { body, buildMesh, subdivide, type RawMesh } from '#core/mesh';
import type { Brush } from '#core/settings';
import { abandon, beginStroke, endStroke, extendStroke, redo, refinedUnder, retrace, session, takeUp, undo } from '#core/session';
import { clay, keptStep, newStep, readHistory, redoClay, undoClay } from '#core/slab';
import { drainChanged, finish, surface } from '#core/sculpt';
import type { RefineUnder, Sample } from '#core/stroke';
import { bodyCalls, refineBody } from './sculpt/bodyCalls';
import { clayCalls, goClay } from './sculpt/clayCalls';
import { dropFiner, finer, relay, wantFiner } from './sculpt/finer';
import { brushes, change, clayOrNull, current, forms, held, onBareClay, opened } from './sculpt/held';
import type { Begin, Change, Opened, Opening } from './sculpt/messages';

/** The body as it is sculpted: at its own density, subdivided as often as asked. */
function bodyOf({ body: of, levels }: Extract<Opening, { kind: 'body' }>): RawMesh {
  let raw = 'name' in of ? body(of.name, of.density) : readMesh(of.mesh);
  for (let level = 0; level < levels; level++) raw = subdivide(raw);
  return raw;
}

/** Calls that first give up what is only shown. */
function onTheBody<T extends Record<string, (...args: never[]) => unknown>>(calls: T): T {
  return Object.fromEntries(Object.entries(calls).map(([name, call]) => [name, (...args: never[]) => {
    dropFiner();
    return call(...args);
  }])) as T;
}

const api = {
  open(opening: Opening): Opened {
    dropFiner();
    if (opening.kind === 'body') {
      const steps = held.open && !opening.fresh ? held.open.session.done.map((d) => d.step) : [];
      // A body that can't be opened leaves the one that is open.
      const next = session(finish(surface(buildMesh(bodyOf(opening), { unfinished: true }))), { replay: true });
      const places = takeUp(next, steps);
      held.open = { session: (places.length > 0 ? refinedUnder(next, places) : null) ?? next };
      drainChanged(current().surface);
      return opened();
    }
    held.open = null;
    held.pieces = [];
    const { cells, places, mask, upper, history } = opening;
    const slab = clay({ cells, places: places && new Float32Array(places), mask: mask && new Float32Array(mask), upper });
    if (history) for (const before of readHistory(history, slab.session.surface.mesh)) keptStep(slab, before);
    held.open = slab;
    return opened();
  },
  state(): Change {
    return change();
  },

  setForm(alphaId: string, alpha: AlphaKind, bytes: ArrayBuffer): void {
    forms.set(alphaId, alphaForm(alpha, bytes));
  },
  setBrush(brush: Brush): void {
    const of = (id: string | null): AlphaForm | null => (id === null ? null : forms.get(id) ?? null);
    brushes.set(brush.id, resolveBrush(brush, of(brush.form.alphaId), of(brush.tooth.alphaId)));
  },

  /** `refine` shows finer triangles under the stroke while it is drawn. */
  begin(start: Begin, samples: Sample[], refine: RefineUnder | null): Change {
    wantFiner(refine);
    const brush = brushes.get(start.brushId);
    if (!brush) throw new Error('The brush is not loaded.');
    beginStroke(current(), { ...start, brush });
    extendStroke(current(), samples);
    return change();
  },
  extend(samples: Sample[]): Change {
    extendStroke(current(), samples);
    return change(finer());
  },
  /** Lays the running stroke along other samples: a path whose nodes were moved. */
  retrace(samples: Sample[]): Change {
    retrace(current(), samples);
    return change();
  },
  /** `refine` splits and joins triangles of a body under the stroke. */
  end(refine: RefineUnder | null): Change {
    relay();
    const slab = clayOrNull();
    const under = onBareClay(() => {
      const done = endStroke(current(), slab ? null : refine);
      if (done.touched > 0 && slab) newStep(slab);
      return done.under;
    });
    return refineBody(under ? [under] : []);
  },

  /** A stroke that is being drawn is taken back before what was done. */
  undo(): Change {
    if (dropFiner()) return change();
    if (clayOrNull()) return goClay(undoClay);
    undo(current());
    return change();
  },

  ...onTheBody({
    abandon(): Change {
      if (current().running) abandon(current());
      onBareClay(() => undefined);
      return change();
    },
    redo(): Change {
      if (clayOrNull()) return goClay(redoClay);
      redo(current());
      return change();
    },
  }),
  ...onTheBody(clayCalls),
  ...onTheBody(bodyCalls),
};

export type SculptWorker = typeof api;
Comlink.expose(api);
