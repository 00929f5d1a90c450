import { body, buildMesh, maskOut, plane, positionsOut } from '#core/mesh';
import { newBrush, type Brush } from '#core/settings';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import { beginStroke, endStroke, extendStroke, session, type Session } from './index';
import { BRUSH_ID, down, slabSession, start, stroke, testBrush, type BrushChange } from './testKit';

const bytes = (s: Session) => s.surface.mesh.positions.slice();

test('radial symmetry of 12 is exact to float precision', () => {
  // A wheel whose own points go round in twelfths, so that each copy of a stroke meets the same points.
  const rings = 24;
  const sectors = 96;
  const positions = new Float32Array((1 + rings * sectors) * 3);
  const triangles: number[] = [];
  const at = (ring: number, sector: number): number => (ring === 0 ? 0 : 1 + (ring - 1) * sectors + (sector % sectors));
  for (let r = 1; r <= rings; r++) {
    for (let k = 0; k < sectors; k++) {
      const angle = (2 * Math.PI * k) / sectors;
      positions.set([Math.cos(angle) * (r / rings), Math.sin(angle) * (r / rings), 0], at(r, k) * 3);
      triangles.push(at(r - 1, k), at(r, k), at(r, k + 1));
      if (r > 1) triangles.push(at(r - 1, k), at(r, k + 1), at(r - 1, k + 1));
    }
  }
  const s = session(surface(buildMesh({ positions, triangles: Uint32Array.from(triangles) })), { replay: false });
  for (const action of ['lift', 'crease', 'build', 'inflate', 'smooth', 'flatten', 'move', 'mask'] as const) {
    const brush = testBrush({
      touch: { action, falloff: { kind: 'bell', hold: 0, nodes: [] }, strength: 40 },
      stroke: { size: 0.2, spacing: 30, mapping: 'view' },
    });
    stroke(
      s,
      brush,
      [
        [0.5, 0.1],
        [0.6, 0.2],
        [0.55, 0.3],
      ],
      { symmetry: { ...NO_SYMMETRY, copies: 12 } },
    );
  }
  const { mesh } = s.surface;
  const out = positionsOut(mesh);
  const masks = maskOut(mesh);
  let worst = 0;
  let moved = 0;
  for (let r = 1; r <= rings; r++) {
    for (let k = 0; k < sectors; k++) {
      const a = at(r, k);
      const b = at(r, k + sectors / 12);
      const c = Math.cos(Math.PI / 6);
      const n = Math.sin(Math.PI / 6);
      const turned = [out[a * 3] * c - out[a * 3 + 1] * n, out[a * 3] * n + out[a * 3 + 1] * c, out[a * 3 + 2]];
      turned.forEach((x, i) => (worst = Math.max(worst, Math.abs(x - out[b * 3 + i]))));
      worst = Math.max(worst, Math.abs(masks[a] - masks[b]));
      if (out[a * 3 + 2] !== 0) moved++;
    }
  }
  expect(moved).toBeGreaterThan(400);
  expect(worst).toBeLessThan(2e-6);
});

describe('the slab’s brushes', () => {
  const hills = (): ReturnType<typeof plane> => {
    const raw = plane(96, 2);
    for (let i = 0; i < raw.positions.length; i += 3) raw.positions[i + 2] = 0.05 * Math.cos(raw.positions[i] * 20);
    return raw;
  };
  const spread = (s: Session): number => {
    const heights = bytes(s).filter((_, i, p) => i % 3 === 2 && Math.hypot(p[i - 2], p[i - 1]) < 0.2);
    return Math.max(...heights) - Math.min(...heights);
  };
  const press = (action: Brush['touch']['action'], more: BrushChange = {}) =>
    testBrush({
      touch: { action, strength: 60, falloff: { kind: 'full', hold: 0, nodes: [] }, reachDepth: 4, ...more.touch },
      stroke: { type: 'press', size: 0.5, mapping: 'view', ...more.stroke },
    });

  test('Flatten brings hills and hollows together, digging only cuts the hills', () => {
    const s = slabSession(hills());
    const was = spread(s);
    stroke(s, press('flatten'), [[0, 0]]);
    expect(spread(s)).toBeCloseTo(was * 0.4, 2);
    const t = slabSession(hills());
    const before = bytes(t);
    stroke(t, press('flatten'), [[0, 0]], { dig: true });
    expect(bytes(t).every((z, i) => i % 3 !== 2 || z <= before[i])).toBe(true);
    expect(spread(t)).toBeLessThan(was);
  });

  test('Build fills the hollows and leaves what stands high', () => {
    const s = slabSession(hills());
    const before = bytes(s);
    stroke(s, press('build', { touch: { strength: 100 } }), [[0, 0]]);
    expect(bytes(s).every((z, i) => i % 3 !== 2 || z >= before[i])).toBe(true);
    expect(spread(s)).toBeLessThan(0.02);
  });

  test('Inflate goes along each place’s own normal', () => {
    const s = session(surface(buildMesh(body('ball', 32))), { replay: false });
    beginStroke(
      s,
      start(
        testBrush({
          touch: { action: 'inflate', falloff: { kind: 'full', hold: 0, nodes: [] } },
          stroke: { type: 'press', size: 0.5 },
        }),
      ),
    );
    extendStroke(s, [{ origin: [0, 0, 5], direction: [0, 0, -1] }]);
    endStroke(s);
    const p = s.surface.mesh.positions;
    const radii = Array.from({ length: p.length / 3 }, (_, v) => Math.hypot(p[v * 3], p[v * 3 + 1], p[v * 3 + 2]));
    expect(Math.max(...radii)).toBeCloseTo(1 + 0.1 * 2 * 0.5, 4);
  });

  test('Mask paints and takes away, and masked clay stays to the byte under every other brush', () => {
    const s = slabSession(hills());
    stroke(s, press('mask', { touch: { strength: 100 }, stroke: { size: 0.3 } }), [[0, 0]]);
    const { mesh } = s.surface;
    expect(mesh.mask.filter((m) => m === 1).length).toBeGreaterThan(300);
    const before = bytes(s);
    for (const action of ['lift', 'build', 'crease', 'inflate', 'smooth', 'flatten', 'move'] as const) {
      stroke(s, press(action), [
        [0, 0],
        [0.1, 0.05],
      ]);
      stroke(
        s,
        testBrush({ touch: { action, overlaps: 'even' }, stroke: { size: 0.4 } }),
        [
          [-0.3, 0],
          [0.3, 0.1],
        ],
        { dig: true },
      );
    }
    const now = bytes(s);
    let touched = 0;
    mesh.mask.forEach((m, v) => {
      if (m === 1 && [0, 1, 2].some((c) => now[v * 3 + c] !== before[v * 3 + c])) touched++;
    });
    expect(touched).toBe(0);
    expect(now).not.toEqual(before);
    stroke(s, press('mask', { touch: { strength: 100 }, stroke: { size: 0.6 } }), [[0, 0]], { dig: true });
    // What was moved so far that it looks away keeps its mask.
    expect(mesh.mask.filter((m) => m > 0).length).toBeLessThan(80);
  });

  test('pressure goes to size and strength down to their lower limits, and spacing follows the size', () => {
    const half = (low: {
      pressureSize?: number;
      pressureStrength?: number;
    }): { dabs: number; top: number; width: number } => {
      const s = slabSession(plane(128, 2));
      const pen = newBrush(BRUSH_ID, 'x').pen;
      for (const key of ['pressureSize', 'pressureStrength'] as const) pen[key].low = low[key] ?? 100;
      const brush = testBrush({
        pen,
        stroke: { size: 0.2, spacing: 50 },
        touch: { overlaps: 'even', falloff: { kind: 'full', hold: 0, nodes: [] } },
      });
      beginStroke(s, start(brush));
      extendStroke(
        s,
        [
          [-0.5, 0],
          [0.5, 0],
        ].map(([x, y]) => ({ ...down(x, y), pressure: 0.5 })),
      );
      const { dabs } = endStroke(s);
      const heights = bytes(s);
      return {
        dabs,
        top: Math.max(...heights.filter((_, i) => i % 3 === 2)),
        width: Math.max(...heights.filter((_, i) => i % 3 === 1 && heights[i + 1] !== 0)),
      };
    };
    expect(half({})).toMatchObject({ dabs: 6 });
    expect(half({}).top).toBeCloseTo(0.04, 5);
    const small = half({ pressureSize: 0 });
    expect(small.dabs).toBe(11);
    expect(small.width).toBeLessThan(0.11);
    expect(small.top).toBeCloseTo(0.02, 5);
    expect(half({ pressureStrength: 50 }).top).toBeCloseTo(0.03, 5);
  });
});
