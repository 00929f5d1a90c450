/** What the page asks of an open slab: edits, set forms, levels and everything that is kept of it. */
import * as Comlink from 'comlink';
import type { Edit } from '#core/edit';
import { packMesh } from '#core/formats';
import { maskOut, positionsOut } from '#core/mesh';
import { raisedPart } from '#core/part';
import { abandon, changeBeside, keepEdit, makeEdit, tryEdit, type Beside } from '#core/session';
import { PART_CELLS, type Frame, type SetForm } from '#core/settings';
import { packHistory, stepLevel, type ClayBytes, type LevelDirection } from '#core/slab';
import type { Cancelled } from '../castResult';
import { change, current, following, forms, onBareClay, openClay, orCancelled, parts, state } from './state';
import type { Change, EditOrder, Followed } from './messages';

const HISTORY_BYTES = 24 * 2 ** 20;

function ordered(order: EditOrder): Edit {
  if (order.kind !== 'mask-alpha') return order;
  const form = forms.get(order.alphaId);
  if (!form) throw new Error('The alpha is not loaded.');
  return { kind: 'mask-alpha', picture: form.pyramid.levels[0], frame: order.frame, mode: order.mode };
}

function note(beside: Beside): void {
  changeBeside(current(), beside);
  state.told.beside = beside.after;
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
    keepEdit(current());
    onBareClay(() => undefined);
    return change();
  },
  dropEdit(): Change {
    abandon(current());
    onBareClay(() => undefined);
    return change();
  },
  makeEdit(order: EditOrder): Change {
    onBareClay(() => makeEdit(current(), ordered(order)));
    return change();
  },
  /** Set forms that lie on the clay from now on. */
  showSetForms(next: SetForm[], beside: Beside | null): Change {
    if (state.setForms.length > 0) abandon(current());
    state.setForms = next;
    onBareClay(() => beside && note(beside));
    return change();
  },
  /** Makes the set forms part of the clay; undone, they lie on it again. */
  bakeSetForms(beside: Beside): Change {
    const baked = state.setForms;
    abandon(current());
    state.setForms = [];
    tryEdit(current(), { kind: 'bake', setForms: baked, parts });
    if (keepEdit(current(), beside)) state.told.beside = beside.after;
    else note(beside);
    return change();
  },
  /** What lies beside the clay changed. */
  changeBeside(beside: Beside): Change {
    note(beside);
    return change();
  },
  step(direction: LevelDirection, call: number, told: Followed['told']): Change | Cancelled {
    return orCancelled(() => {
      onBareClay(() => stepLevel(openClay(), direction, following({ call, told })));
      return change();
    });
  },
  /** What stands out of the clay in the frame, set forms too, as a part that core/formats packs. */
  raised(frame: Frame): ArrayBuffer {
    const { positions, triangles } = openClay().surface.mesh;
    const packed = packMesh(raisedPart({ positions, triangles }, frame));
    return Comlink.transfer(packed, [packed]);
  },
  /** Everything that is kept of a slab, without its set forms. */
  bytes(): ClayBytes {
    const slab = openClay();
    // With half of a stroke the history would not lead back to the clay; the page asks when it has ended.
    if (slab.running) throw new Error('The clay can’t be kept while a stroke is drawn.');
    return onBareClay(() => {
      const { mesh } = slab.surface;
      const places = positionsOut(mesh).buffer as ArrayBuffer;
      const masked = mesh.mask.some((m) => m !== 0);
      const mask = masked ? (maskOut(mesh).buffer as ArrayBuffer) : null;
      const history = packHistory(slab.done, HISTORY_BYTES)?.buffer ?? null;
      // Levels that were left don't change: they are copied, not given away.
      return Comlink.transfer({ cells: slab.level.cells, places, mask, upper: [...slab.level.upper], history }, [
        places,
        ...(mask ? [mask] : []),
        ...(history ? [history] : []),
      ]);
    });
  },
};
