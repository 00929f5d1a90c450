/** A hand that works straight down on a slab: the scripts of the demo set are written with it. */
import { resolveBrush, type ResolvedBrush } from '#core/brush';
import { buildMesh, plane, type Mesh, type Ray } from '#core/mesh';
import { newBrush, SLAB_SIDE, type Brush } from '#core/settings';
import { beginStroke, endStroke, extendStroke, session, type Session } from '#core/session';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';

export interface Hand {
  mesh: Mesh;
  session: Session;
  strokes: number;
}

export type Point = readonly [number, number];

export function hand(cells: number): Hand {
  const mesh = buildMesh(plane(cells, SLAB_SIDE));
  return { mesh, session: session(surface(mesh), { replay: false, undoLimit: 0 }), strokes: 0 };
}

export function tool(change: {
  form?: Partial<Brush['form']>;
  touch?: Partial<Brush['touch']>;
  stroke?: Partial<Brush['stroke']>;
}): ResolvedBrush {
  const brush = newBrush('d0000000-0000-4000-8000-000000000000', 'Script');
  return resolveBrush(
    {
      ...brush,
      form: { ...brush.form, ...change.form },
      touch: { ...brush.touch, overlaps: 'add', ...change.touch },
      stroke: { ...brush.stroke, ...change.stroke },
    },
    null,
  );
}

export function draw(h: Hand, brush: ResolvedBrush, points: readonly Point[], dig = false): void {
  beginStroke(h.session, {
    brush,
    seed: ++h.strokes,
    dig,
    symmetry: NO_SYMMETRY,
    view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
  });
  extendStroke(
    h.session,
    points.map(([x, y]): Ray => ({ origin: [x, y, 4], direction: [0, 0, -1] })),
  );
  endStroke(h.session);
}

/** A circle, or part of one, as points; `wobble` moves each in and out by a share of the radius. */
export function arc(x: number, y: number, radius: number, wobble: () => number, from = 0, to = 2 * Math.PI): Point[] {
  const steps = Math.max(12, Math.ceil((to - from) * 12));
  const shifts = Array.from({ length: 8 }, wobble);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = from + ((to - from) * i) / steps;
    // A few slow waves round the circle, so that it closes on itself.
    const r =
      radius *
      (1 +
        shifts[0] * Math.cos(angle + shifts[1] * 30) +
        shifts[2] * Math.cos(2 * angle + shifts[3] * 30) +
        shifts[4] * Math.cos(3 * angle + shifts[5] * 30));
    return [x + r * Math.cos(angle), y + r * Math.sin(angle)];
  });
}
