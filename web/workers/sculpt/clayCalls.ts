/** What the page asks of an open slab: edits, pieces, levels and everything that is kept of it. */
import * as Comlink from 'comlink';
import type { Edit } from '#core/edit';
import { maskOut, positionsOut } from '#core/mesh';
import { abandon, besideOf, changeBeside, keepEdit, tryEdit, type Beside } from '#core/session';
import { PART_CELLS, type Piece } from '#core/settings';
import { newStep, packHistory, stepLevel, type Clay, type History, type LevelWay } from '#core/slab';
import { change, clayOrNull, current, forms, held, onBareClay, openClay, opened, parts } from './held';
import type { Change, ClayBytes, EditOrder } from './messages';

const HISTORY_BYTES = 24 * 2 ** 20;

function ordered(order: EditOrder): Edit {
  if (order.kind !== 'mask-alpha') return order;
  const form = forms.get(order.alphaId);
  if (!form) throw new Error('The alpha is not loaded.');
  return { kind: 'mask-alpha', picture: form.pyramid.levels[0]!, frame: order.frame, way: order.way };
}

/** Goes one step back or on; a step may lead to another level, which is another mesh. */
export function goClay(step: (slab: Clay) => History): Change {
  const { session } = openClay();
  const before = { done: session.done.length, undone: session.undone.length };
  const how = onBareClay(() => step(openClay()));
  if (how === 'level') return change(opened());
  const { done, undone } = session;
  const beside =
    undone.length > before.undone
      ? besideOf(undone.at(-1))?.before
      : done.length > before.done
        ? besideOf(done.at(-1)?.step)?.after
        : null;
  return change(null, beside ?? null);
}

function note(beside: Beside): void {
  changeBeside(current(), beside);
  newStep(openClay());
}

export const clayCalls = {
  setPart(heights: string, bytes: ArrayBuffer): void {
    const data = new Float32Array(bytes);
    if (data.length !== PART_CELLS ** 2)
      throw new Error(`A part needs ${PART_CELLS ** 2} heights, found ${data.length}.`);
    parts.set(heights, { width: PART_CELLS, height: PART_CELLS, data });
  },
  /** Shows what an edit would do; the one shown before is taken back. */
  tryEdit(order: EditOrder): Change {
    tryEdit(current(), ordered(order));
    return change();
  },
  keepEdit(): Change {
    if (keepEdit(current())) newStep(openClay());
    onBareClay(() => undefined);
    return change();
  },
  dropEdit(): Change {
    abandon(current());
    onBareClay(() => undefined);
    return change();
  },
  makeEdit(order: EditOrder): Change {
    onBareClay(() => {
      const slab = clayOrNull();
      tryEdit(current(), ordered(order));
      if (keepEdit(current()) && slab) newStep(slab);
    });
    return change();
  },
  /** Pieces that lie on the clay from now on. */
  setPieces(next: Piece[], beside: Beside | null): Change {
    if (held.pieces.length > 0) abandon(current());
    held.pieces = next;
    onBareClay(() => beside && note(beside));
    return change();
  },
  /** Makes the pieces part of the clay; undone, they lie on it again. */
  bakePieces(beside: Beside): Change {
    const baked = held.pieces;
    abandon(current());
    held.pieces = [];
    tryEdit(current(), { kind: 'bake', pieces: baked, parts });
    if (keepEdit(current(), beside)) newStep(openClay());
    else note(beside);
    return change();
  },
  /** What lies beside the clay changed. */
  changeBeside(beside: Beside): Change {
    note(beside);
    return change();
  },
  step(way: LevelWay): Change {
    onBareClay(() => stepLevel(openClay(), way));
    return change(opened());
  },
  /** Everything that is kept of a slab, without its pieces. */
  bytes(): ClayBytes {
    const slab = openClay();
    // With half of a stroke the history would not lead back to the clay; the page asks when it has ended.
    if (slab.session.running) throw new Error('The clay can’t be kept while a stroke is drawn.');
    return onBareClay(() => {
      const { mesh } = slab.session.surface;
      const places = positionsOut(mesh).buffer as ArrayBuffer;
      const masked = mesh.mask.some((m) => m !== 0);
      const mask = masked ? (maskOut(mesh).buffer as ArrayBuffer) : null;
      const history = packHistory(slab.session.done, HISTORY_BYTES)?.buffer ?? null;
      // Levels that were left don't change: they are copied, not given away.
      return Comlink.transfer({ cells: slab.cells, places, mask, upper: slab.upper, history }, [
        places,
        ...(mask ? [mask] : []),
        ...(history ? [history] : []),
      ]);
    });
  },
};
