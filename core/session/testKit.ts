/** Small slabs and strokes for tests: a hand that works straight down on a plane. */
import { resolveBrush, type AlphaForm, type ResolvedBrush } from '#core/brush';
import { buildMesh, plane, type RawMesh, type Ray } from '#core/mesh';
import { newBrush, type Brush } from '#core/settings';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY, type StrokeStart } from '#core/stroke';
import { beginStroke, endStroke, extendStroke, session, type Session } from './session';

export const BRUSH_ID = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';

export type BrushChange = {
  form?: Partial<Brush['form']>;
  touch?: Partial<Brush['touch']>;
  stroke?: Partial<Brush['stroke']>;
  drift?: Partial<Brush['drift']>;
  pen?: Partial<Brush['pen']>;
};

export function testBrush(change: BrushChange = {}, alpha: AlphaForm | null = null): ResolvedBrush {
  const brush = newBrush(BRUSH_ID, 'Test');
  return resolveBrush(
    {
      ...brush,
      form: { ...brush.form, ...change.form },
      touch: { ...brush.touch, ...change.touch },
      stroke: { ...brush.stroke, ...change.stroke },
      drift: { ...brush.drift, ...change.drift },
      pen: { ...brush.pen, ...change.pen },
    },
    alpha,
  );
}

export function slabSession(raw: RawMesh = plane(64, 2), options = { replay: true }): Session {
  return session(surface(buildMesh(raw)), options);
}

export function down(x: number, y: number): Ray {
  return { origin: [x, y, 5], direction: [0, 0, -1] };
}

export function start(brush: ResolvedBrush, more: Partial<StrokeStart> = {}): StrokeStart {
  return {
    brush,
    seed: 1,
    dig: false,
    symmetry: NO_SYMMETRY,
    view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
    ...more,
  };
}

export function stroke(
  s: Session,
  brush: ResolvedBrush,
  points: readonly (readonly [number, number])[],
  more: Partial<StrokeStart> = {},
): { dabs: number; touched: number } {
  beginStroke(s, start(brush, more));
  extendStroke(
    s,
    points.map(([x, y]) => down(x, y)),
  );
  return endStroke(s);
}

/** Height of the plane's vertex nearest to (x, y). */
export function heightNear(s: Session, x: number, y: number): number {
  const { positions: p, vertexCount } = s.surface.mesh;
  let best = Infinity;
  let z = 0;
  for (let v = 0; v < vertexCount; v++) {
    const d = (p[v * 3] - x) ** 2 + (p[v * 3 + 1] - y) ** 2;
    if (d < best) {
      best = d;
      z = p[v * 3 + 2];
    }
  }
  return z;
}
