/**
 * What the pointer does on a slab when it isn't stroking: panning and turning the view, mask shapes, dragging set
 * forms and picking the point of symmetry.
 */
import type { Ref } from 'vue';
import { setFormAt, setFormReach } from '#core/setForm';
import { SLAB_SIDE } from '#core/settings';
import { useSlabBench } from '../stores/slabBench';
import { useSlabTools } from '../stores/slabTools';
import type { MaskDrag } from '../viewport/maskDrag';
import type { SlabEye } from '../viewport/slabEye';
import type { StrokeInput } from '../viewport/strokeInput';

export interface SlabHandOptions {
  eye: () => SlabEye | null;
  input: () => StrokeInput | null;
  drawn: MaskDrag;
  /** Whether a mask shape takes away. */
  taking: Ref<boolean>;
  /** Where a set form is set for a place on the slab. */
  settled: (at: readonly [number, number]) => readonly [number, number];
  /** Whether two fingers move the view. */
  fingers: () => boolean;
  /** Whether a drag is for the brush's size and strength. */
  adjusting: () => boolean;
  /** Whether this press is a finger's that moves the view. */
  movesView: (e: PointerEvent) => boolean;
}

type Held =
  | { kind: 'pan' | 'turn' | 'nearer'; x: number; y: number; atX: number; atY: number }
  | { kind: 'shape' }
  | { kind: 'setForm'; id: string; from: readonly [number, number]; x: number; y: number };

const RAD_A_PIXEL = 0.008;
const NEARER_A_PIXEL = 1.008;

export function useSlabHands(o: SlabHandOptions) {
  const bench = useSlabBench();
  const tools = useSlabTools();
  let held: Held | null = null;
  /** A key is held: the left button moves the eye. */
  let looking: 'move' | 'nearer' | null = null;
  let stroked = false;

  const shaping = (): boolean => tools.brush.touch.action === 'mask' && tools.maskShape !== 'brush';
  /** Whether the left button is for something else than a stroke. */
  const blocked = (): boolean =>
    o.fingers() ||
    looking !== null ||
    o.adjusting() ||
    tools.pickingPoint ||
    shaping() ||
    held?.kind === 'setForm' ||
    (tools.tab === 'setForms' && bench.setForms.length > 0);

  function down(e: PointerEvent): void {
    if (o.fingers() || (held && e.pointerType === 'touch')) return;
    const at = { x: e.offsetX, y: e.offsetY };
    const target = e.currentTarget as Element;
    const from = { x: e.clientX, y: e.clientY, atX: at.x, atY: at.y };
    if (e.button !== 0) held = { kind: e.button === 2 && e.shiftKey ? 'turn' : 'pan', ...from };
    else if (looking) held = { kind: looking === 'nearer' ? 'nearer' : e.shiftKey ? 'turn' : 'pan', ...from };
    else if (o.movesView(e)) held = { kind: 'pan', ...from };
    else if (o.adjusting()) return;
    else if (tools.pickingPoint) pickPoint(at);
    else if (tools.tab === 'setForms' && bench.setForms.length > 0) takeSetForm(at);
    else if (shaping()) {
      held = { kind: 'shape' };
      o.drawn.begin(tools.maskShape as 'rectangle' | 'ellipse' | 'lasso', at.x, at.y);
    }
    if (held) target.setPointerCapture(e.pointerId);
  }

  function move(e: PointerEvent): void {
    if (!held) return;
    switch (held.kind) {
      case 'pan':
      case 'turn':
      case 'nearer':
        if (held.kind === 'turn') o.eye()?.turn((e.clientX - held.x) * RAD_A_PIXEL);
        else if (held.kind === 'nearer') o.eye()?.zoom(NEARER_A_PIXEL ** (held.y - e.clientY), held.atX, held.atY);
        else o.eye()?.pan(e.clientX - held.x, e.clientY - held.y);
        held = { ...held, x: e.clientX, y: e.clientY };
        return;
      case 'shape':
        return o.drawn.move(e.offsetX, e.offsetY);
      case 'setForm':
        return dragSetForm(held, e);
    }
  }

  function up(): void {
    if (held?.kind === 'shape') {
      const shape = o.drawn.end();
      if (shape && bench.doc)
        void bench.make({
          kind: 'mask-shape',
          shape,
          mode: o.taking.value ? 'subtract' : 'add',
          symmetry: { ...bench.doc.symmetry },
        });
    }
    held = null;
  }

  function pickPoint(at: { x: number; y: number }): void {
    const place = o.eye()?.onSlab(at.x, at.y);
    tools.pickingPoint = false;
    if (!place) return;
    const half = SLAB_SIDE / 2;
    bench.edit((slab) => {
      slab.symmetry.x = Math.max(-half, Math.min(half, place[0]));
      slab.symmetry.y = Math.max(-half, Math.min(half, place[1]));
    });
  }

  function takeSetForm(at: { x: number; y: number }): void {
    const [x, y] = o.eye()!.onSlab(at.x, at.y);
    const index = setFormAt(bench.setForms, x, y, setFormReach);
    const setForm = bench.setForms[index];
    tools.setFormId = setForm?.id ?? null;
    if (setForm) held = { kind: 'setForm', id: setForm.id, from: [setForm.x, setForm.y], x, y };
  }

  function dragSetForm(from: Extract<Held, { kind: 'setForm' }>, e: PointerEvent): void {
    const [x, y] = o.eye()!.onSlab(e.offsetX, e.offsetY);
    void bench.editSetForms((slab) => {
      const setForm = slab.setForms.find((p) => p.id === from.id);
      if (!setForm) return;
      const [toX, toY] = o.settled([from.from[0] + x - from.x, from.from[1] + y - from.y]);
      setForm.x = Math.max(-4, Math.min(4, toX));
      setForm.y = Math.max(-4, Math.min(4, toY));
    });
  }

  /** Takes back what the pointer began and hasn't released. */
  function drop(): void {
    if (held?.kind === 'setForm') {
      const { id, from } = held;
      void bench.editSetForms((slab) => {
        const setForm = slab.setForms.find((p) => p.id === id);
        if (setForm) [setForm.x, setForm.y] = from;
      });
    }
    held = null;
    o.drawn.drop();
    o.input()?.abandon();
  }

  return {
    blocked,
    down,
    move,
    up,
    abandon(): void {
      drop();
      tools.pickingPoint = false;
    },
    drop,
    holdLooking(hand: 'move' | 'nearer', isDown: boolean): void {
      looking = isDown ? hand : null;
      o.input()?.hover();
    },
    /** Held it smooths; tapped, without a stroke in between, it chooses the brush. */
    holdSmooth(isDown: boolean, tapped: boolean): void {
      tools.smoothing = isDown;
      if (isDown) stroked = false;
      else if (!stroked && tapped) tools.choose(tools.brushes.find((b) => b.touch.action === 'smooth')!.id);
    },
    stroked(): void {
      stroked = true;
    },
  };
}
