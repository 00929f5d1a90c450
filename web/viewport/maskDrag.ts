/** Drawing a mask's outline on the slab: a rectangle or ellipse from corner to corner along the view, or a lasso. */
import { reactive } from 'vue';
import type { MaskShape } from '#core/edit';
import type { SlabEye } from './slabEye';

export type DrawnKind = MaskShape['kind'];

export interface MaskDrag {
  /** Corners on the slab, body units; empty while nothing is drawn. */
  readonly state: { kind: DrawnKind; points: [number, number][] };
  begin(kind: DrawnKind, x: number, y: number): void;
  move(x: number, y: number): void;
  /** The shape that was drawn; null when it has no size. */
  end(): MaskShape | null;
  drop(): void;
}

/** Points of a lasso lie at least this far from each other, in CSS pixels. */
const LASSO_STEP = 3;

export function maskDrag(eye: () => SlabEye | null): MaskDrag {
  const state = reactive<{ kind: DrawnKind; points: [number, number][] }>({ kind: 'rectangle', points: [] });
  let last = { x: 0, y: 0 };
  return {
    state,
    begin(kind, x, y) {
      state.kind = kind;
      state.points = [eye()!.onSlab(x, y)];
      last = { x, y };
    },
    move(x, y) {
      if (state.points.length === 0) return;
      const at = eye()!.onSlab(x, y);
      if (state.kind !== 'lasso') state.points = [state.points[0], at];
      else if (Math.hypot(x - last.x, y - last.y) >= LASSO_STEP) {
        state.points.push(at);
        last = { x, y };
      }
    },
    end() {
      const shape = shapeOf(state.kind, state.points, eye()?.state.turnRad ?? 0);
      state.points = [];
      return shape;
    },
    drop() {
      state.points = [];
    },
  };
}

/** Sides of a rectangle run along the view, which may be turned. */
export function shapeOf(
  kind: DrawnKind,
  points: readonly (readonly [number, number])[],
  turnRad: number,
): MaskShape | null {
  if (kind === 'lasso') return points.length < 3 ? null : { kind, points: points.flat() };
  const [a, b] = points;
  if (!a || !b) return null;
  const c = Math.cos(turnRad);
  const s = Math.sin(turnRad);
  const dx = b[0] - a[0];
  const dy = b[1] - a[1];
  const halfWidth = Math.abs(dx * c + dy * s) / 2;
  const halfHeight = Math.abs(dy * c - dx * s) / 2;
  if (halfWidth < 1e-4 || halfHeight < 1e-4) return null;
  return { kind, x: (a[0] + b[0]) / 2, y: (a[1] + b[1]) / 2, turnRad, halfWidth, halfHeight };
}
