/** What the page asks of an open body: its strokes run again, and cuts cut off it. */
import * as Comlink from 'comlink';
import { packMesh, readMesh } from '#core/formats';
import {
  adoptBrush,
  changePieces,
  clearStrokes,
  cutOff,
  firstAgain,
  maskLastRaised,
  letStay,
  mergePieces,
  refineUnderAll,
  replay,
  takeUpSteps,
  uncut,
} from '#core/session';
import type { PieceChange } from '#core/scene';
import { brushes, change, current, state } from './state';
import type { Change, StepSnapshot } from './messages';

export const bodyCalls = {
  /** Masks what the last stroke raised. */
  maskRaised(): Change {
    maskLastRaised(current());
    return change();
  },
  /** Cuts what is masked off the body; the cut as kept bytes, null when nothing whole is masked. */
  cutOff(thickness: number): { change: Change; cut: ArrayBuffer | null } {
    const cut = cutOff(current(), thickness);
    const packed = cut && packMesh(cut);
    const out = { change: change(), cut: packed };
    return Comlink.transfer(out, [out.change.leaves.buffer as ArrayBuffer, ...(packed ? [packed] : [])]);
  },
  /** Takes back the cut, which is the last step; false when more was done since. */
  uncut(): { change: Change; undone: boolean } {
    const undone = uncut(current());
    const out = { change: change(), undone };
    return Comlink.transfer(out, [out.change.leaves.buffer as ArrayBuffer]);
  },
  /** The body as it is sculpted. */
  sculpted(): ArrayBuffer {
    const { positions, triangles, carried } = (current().running?.began ?? current()).surface.mesh;
    const packed = packMesh({ positions, triangles, carried });
    return Comlink.transfer(packed, [packed]);
  },
  /** The untouched body with the triangles that it has now. */
  untouched(): ArrayBuffer {
    const { base, surface } = current().running?.began ?? current();
    const { mesh } = surface;
    const packed = packMesh({ ...mesh, positions: base ?? mesh.positions });
    return Comlink.transfer(packed, [packed]);
  },
  adopt(from: string, to: string): void {
    adoptBrush(current(), from, to);
  },
  replay(): Change {
    replay(current(), brushes);
    return change();
  },
  /** Splits and joins triangles anew where strokes that ask for it lie now. */
  refineAgain(): Change {
    refineUnderAll(current(), replay(current(), brushes));
    return change();
  },
  /** Strokes keep the settings they were drawn with, or follow their brushes once those are run again. */
  letStay(stays: boolean): void {
    letStay(current(), stays);
  },
  /** What was done to the body, to be laid on another or kept. A stroke's own brush goes along by its id alone. */
  steps(): StepSnapshot[] {
    const s = current();
    return s.done.slice(firstAgain(s)).flatMap(({ step }): StepSnapshot[] => {
      switch (step.kind) {
        case 'stroke': {
          const { brush, ...rest } = step.record;
          return [{ kind: 'stroke', stroke: { ...rest, brushId: brush.id } }];
        }
        case 'edit':
        case 'layers':
        case 'size':
        case 'mask-raised':
        case 'cut':
          return [step];
        case 'pieces':
        case 'merge':
        case 'beside':
        case 'level':
        case 'earlier':
          return [];
      }
    });
  },
  /** Takes everything off the body and lays these steps; strokes of brushes that aren't known here take `instead`. */
  drawSteps(steps: StepSnapshot[], instead: string): Change {
    const own = brushes.get(instead);
    if (!own) throw new Error('The brush is not loaded.');
    clearStrokes(current());
    takeUpSteps(
      current(),
      steps.map((step) => {
        if (step.kind !== 'stroke') return step;
        const { brushId, ...rest } = step.stroke;
        return { kind: 'stroke', record: { ...rest, stays: false, brush: brushes.get(brushId) ?? own } };
      }),
    );
    return change();
  },
  changePieces(changes: PieceChange[]): Change {
    changePieces(current(), changes);
    return change();
  },
  /** The body as it is sculpted, for pieces to be merged into it elsewhere. */
  handOut(): ArrayBuffer {
    const s = current();
    state.handedOut = { session: s, steps: [...s.done] };
    return bodyCalls.sculpted();
  },
  /** These pieces became part of the body that was handed out; `mesh` is all of it in one. */
  mergePieces(ids: string[], mesh: ArrayBuffer): Change {
    const s = current();
    const { handedOut } = state;
    state.handedOut = null;
    const still =
      handedOut?.session === s &&
      handedOut.steps.length === s.done.length &&
      handedOut.steps.every((step, i) => step === s.done[i]);
    if (!still) throw new Error('The body was worked on meanwhile, so nothing was merged. Merge again.');
    mergePieces(s, ids, readMesh(mesh));
    return change();
  },
  clear(): Change {
    clearStrokes(current());
    return change();
  },
};
