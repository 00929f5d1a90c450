/** How pictures lie on the body: each mapping, the tooth, and the ways that Lift moves. */
import { resolveBrush, type AlphaForm } from '#core/brush';
import { body, buildMesh, plane } from '#core/mesh';
import { newPicture, pyramid, sample, type Picture } from '#core/picture';
import { newBrush, type Mapping } from '#core/settings';
import { surface } from '#core/sculpt';
import { stencilRows } from '#core/stroke';
import { beginStroke, endStroke, extendStroke, session, type Session } from './index';
import { down, heightNear, slabSession, start, stroke, testBrush, type BrushChange } from './testKit';

const bytes = (s: Session) => s.surface.mesh.positions.slice();
const FULL = { kind: 'full', hold: 0, nodes: [] } as const;
const form = (picture: Picture): AlphaForm => ({ pyramid: pyramid(picture), relief: 0.2, vector: null });

/** Smooth bumps that repeat, none of them like its mirror image. */
function bumps(size = 64): Picture {
  const picture = newPicture(size);
  for (let j = 0; j < size; j++) {
    for (let i = 0; i < size; i++) {
      const [x, y] = [((i + 0.5) / size) * 2 * Math.PI, ((j + 0.5) / size) * 2 * Math.PI];
      picture.data[j * size + i] =
        0.5 + 0.25 * Math.sin(x) + 0.15 * Math.cos(y + 0.6 * Math.sin(x)) + 0.1 * Math.sin(2 * x + y);
    }
  }
  return picture;
}

const press = (mapping: Mapping, more: BrushChange = {}): BrushChange => ({
  form: { depth: 100, tile: 0.4, ...more.form },
  touch: { falloff: { ...FULL, nodes: [] }, ...more.touch },
  stroke: { type: 'press', size: 0.4, mapping, ...more.stroke },
  drift: { ...more.drift },
});

test('full falloff reproduces the picture to the ring', () => {
  const picture = bumps();
  const s = slabSession(plane(128, 2));
  stroke(s, testBrush(press('surface'), form(picture)), [[0, 0]]);
  const p = s.surface.mesh.positions;
  let inside = 0;
  for (let i = 0; i < p.length; i += 3) {
    const [u, v] = [p[i] / 0.4, p[i + 1] / 0.4];
    const rho = Math.hypot(u, v);
    if (rho > 1.001) expect(p[i + 2]).toBe(0);
    else if (rho < 0.999) {
      inside++;
      expect(p[i + 2]).toBeCloseTo(0.2 * 0.8 * sample(picture, (u + 1) / 2, (1 - v) / 2), 5);
    }
  }
  expect(inside).toBeGreaterThan(1500);
});

test('On surface lays a disc on a ball with less than 2 % stretch up to a quarter of its radius', () => {
  for (const radius of [0.1, 0.2, 0.25]) {
    const s = session(surface(buildMesh(body('ball', 150))), { replay: true });
    const centre = [0.48, 0.6, 0.64];
    const before = bytes(s);
    beginStroke(
      s,
      start(
        testBrush({
          stroke: { type: 'press', size: radius },
          touch: { falloff: { ...FULL, nodes: [] } },
          form: { depth: 10 },
        }),
      ),
    );
    extendStroke(s, [
      {
        origin: centre.map((c) => c * 3) as [number, number, number],
        direction: centre.map((c) => -c) as [number, number, number],
      },
    ]);
    endStroke(s);
    const after = bytes(s);
    // The rim, measured along the ball, in eight directions round the stamp.
    const rims = new Float64Array(8);
    const [a, b] = across(centre);
    for (let i = 0; i < before.length; i += 3) {
      if (after[i] === before[i] && after[i + 1] === before[i + 1] && after[i + 2] === before[i + 2]) continue;
      const p = [before[i], before[i + 1], before[i + 2]];
      const side = Math.floor(((Math.atan2(dot(p, b), dot(p, a)) + Math.PI) / (2 * Math.PI)) * 8) % 8;
      rims[side] = Math.max(rims[side], Math.acos(Math.min(1, dot(p, centre) / Math.hypot(...p))));
    }
    for (const rim of rims) {
      expect(rim / radius).toBeLessThan(1.02);
      // The last vertex inside lies up to two distances from the rim.
      expect(rim / radius).toBeGreaterThan(0.98 - (2 * s.surface.spacing) / radius);
    }
  }
});

describe('Wrapped', () => {
  test('lies where it lies, whatever the dab does', () => {
    const heights = [
      [0, 0],
      [0.15, -0.1],
      [-0.2, 0.15],
    ].map(([x, y]) => {
      const s = slabSession(plane(128, 2));
      stroke(s, testBrush(press('wrapped', { form: { depth: 100, tile: 0.4 } }), form(bumps())), [[x, y]]);
      return [heightNear(s, 0.05, 0.02), heightNear(s, -0.05, 0.1)];
    });
    for (const h of heights) h.forEach((x, k) => expect(x).toBeCloseTo(heights[0][k], 6));
    expect(heights[0][0]).not.toBeCloseTo(heights[0][1], 3);
  });

  test('repeats by its tile', () => {
    const s = slabSession(plane(160, 2));
    stroke(s, testBrush(press('wrapped', { stroke: { size: 0.9 } }), form(bumps())), [[0, 0]]);
    for (const [x, y] of [
      [0.05, 0.1],
      [-0.1, 0.2],
    ])
      expect(heightNear(s, x + 0.4, y - 0.4)).toBeCloseTo(heightNear(s, x, y), 3);
  });

  test('on a ball has no seam: neighbours differ no more than the picture does', () => {
    const s = session(surface(buildMesh(body('ball', 96))), { replay: true });
    const brush = testBrush(
      { ...press('wrapped', { form: { depth: 40, tile: 0.8 }, stroke: { size: 2 }, touch: { reachDepth: 4 } }) },
      form(bumps()),
    );
    beginStroke(s, start(brush));
    extendStroke(s, [{ origin: [2, 2, 2], direction: [-1, -1, -1] }]);
    endStroke(s);
    const { positions: p, triangles: t } = s.surface.mesh;
    const height = (v: number): number => Math.hypot(p[v * 3], p[v * 3 + 1], p[v * 3 + 2]);
    let worst = 0;
    for (let i = 0; i < t.length; i++) {
      const [a, b] = [t[i], t[i % 3 === 2 ? i - 2 : i + 1]];
      if (p[a * 3] + p[a * 3 + 1] + p[a * 3 + 2] < 0.6 || p[b * 3] + p[b * 3 + 1] + p[b * 3 + 2] < 0.6) continue;
      worst = Math.max(worst, Math.abs(height(a) - height(b)));
    }
    // Depth 0.4 · relief 0.2 · tile 0.8, at most about 4 of the height range a side, over the longest edge.
    expect(worst).toBeLessThan(0.064 * 4 * (0.03 / 0.8) * 2);
    expect(worst).toBeGreaterThan(0);
  });
});

describe('Stencil', () => {
  // An eye without perspective straight above: clip space is the slab itself, a view of 2 by 2.
  const clip = { x: [1, 0, 0, 0], y: [0, 1, 0, 0], w: [0, 0, 0, 1] } as const;
  const laid = (place: Parameters<typeof stencilRows>[2], points: [number, number][]): Session => {
    const s = slabSession(plane(128, 2));
    beginStroke(s, {
      ...start(testBrush(press('stencil', { stroke: { size: 0.7 } }), form(bumps()))),
      stencil: stencilRows(clip, 1, place),
    });
    extendStroke(
      s,
      points.map(([x, y]) => down(x, y)),
    );
    endStroke(s);
    return s;
  };

  test('the picture comes through where the sheet lies, at its own proportion, and nothing beside it', () => {
    const s = laid({ x: 0.1, y: -0.1, half: 0.3, turnRad: 0 }, [[0, 0]]);
    const at = (u: number, v: number): number => heightNear(s, 0.1 + u * 0.3, -0.1 + v * 0.3);
    for (const [u, v] of [
      [0.25, 0.25],
      [-0.46875, 0.3125],
      [0.78125, -0.625],
    ]) {
      const x = Math.round((0.1 + u * 0.3) * 64) / 64;
      const y = Math.round((-0.1 + v * 0.3) * 64) / 64;
      expect(at(u, v)).toBeCloseTo(
        0.2 * 0.6 * sample(bumps(), ((x - 0.1) / 0.3 + 1) / 2, (1 - (y + 0.1) / 0.3) / 2),
        4,
      );
    }
    expect(heightNear(s, 0.45, 0)).toBe(0);
  });

  test('it stays while dabs go over it: many give what one large one gives', () => {
    const place = { x: 0, y: 0, half: 0.25, turnRad: 0.4 };
    const one = laid(place, [[0, 0]]);
    const other = laid(place, [[0.08, -0.06]]);
    for (const [x, y] of [
      [0.05, 0.05],
      [-0.1, 0.02],
      [0, -0.15],
    ])
      expect(heightNear(one, x, y)).toBeCloseTo(heightNear(other, x, y), 6);
  });

  test('its turn turns the picture anticlockwise', () => {
    const turned = laid({ x: 0, y: 0, half: 0.4, turnRad: Math.PI / 2 }, [[0, 0]]);
    const upright = laid({ x: 0, y: 0, half: 0.4, turnRad: 0 }, [[0, 0]]);
    expect(heightNear(turned, -0.09375, 0.203125)).toBeCloseTo(heightNear(upright, 0.203125, 0.09375), 4);
  });
});

describe('Shuffled', () => {
  test('every dab reads another place; the same seed gives the same bytes', () => {
    const brush = testBrush(press('shuffled', { stroke: { type: 'trail', size: 0.1, spacing: 110 } }), form(bumps()));
    const run = (seed: number): Session => {
      const s = slabSession(plane(128, 2));
      stroke(
        s,
        brush,
        [
          [-0.7, 0],
          [0.7, 0],
        ],
        { seed },
      );
      return s;
    };
    const s = run(3);
    const middles = [0, 1, 2, 3, 4].map((k) => heightNear(s, -0.7 + k * 0.22, 0));
    expect(new Set(middles.map((h) => h.toFixed(4))).size).toBeGreaterThan(3);
    expect(bytes(run(3))).toEqual(bytes(s));
    expect(bytes(run(4))).not.toEqual(bytes(s));
  });
});

describe('flip and squash', () => {
  test('a mirrored dab is the picture’s mirror image', () => {
    const plain = slabSession(plane(128, 2));
    const mirrored = slabSession(plane(128, 2));
    stroke(plain, testBrush(press('surface'), form(bumps())), [[0, 0]]);
    stroke(mirrored, testBrush(press('surface', { drift: { flip: 100 } }), form(bumps())), [[0, 0]]);
    for (const [x, y] of [
      [0.125, 0.0625],
      [-0.25, 0.125],
      [0.1875, -0.25],
    ])
      expect(heightNear(mirrored, -x, y)).toBeCloseTo(heightNear(plain, x, y), 5);
    expect(heightNear(mirrored, 0.125, 0.0625)).not.toBeCloseTo(heightNear(plain, 0.125, 0.0625), 3);
  });

  test('a squashed dab is narrower along its own width and as high', () => {
    const s = slabSession(plane(128, 2));
    const brush = testBrush({ stroke: { type: 'press', size: 0.4 }, touch: { falloff: { ...FULL, nodes: [] } } });
    stroke(s, { ...brush, drift: { ...brush.drift, squash: 0.5 } }, [[0, 0]], { seed: 2 });
    const p = bytes(s);
    let [wide, high] = [0, 0];
    for (let i = 0; i < p.length; i += 3)
      if (p[i + 2] > 0) [wide, high] = [Math.max(wide, Math.abs(p[i])), Math.max(high, Math.abs(p[i + 1]))];
    expect(high).toBeGreaterThan(0.38);
    expect(wide).toBeLessThan(high);
    expect(heightNear(s, 0, 0)).toBeCloseTo(0.08, 6);
  });
});

describe('tooth', () => {
  const stamped = (change: Partial<ReturnType<typeof newBrush>['tooth']>, x: number): Session => {
    const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Tooth');
    Object.assign(brush.stroke, { type: 'press', size: 0.4 });
    brush.touch.falloff.kind = 'full';
    brush.tooth = { ...brush.tooth, alphaId: brush.id, depth: 100, side: 0.3, share: 50, ...change };
    const s = slabSession(plane(128, 2));
    stroke(s, resolveBrush(brush, null, form(bumps())), [[x, 0]]);
    return s;
  };

  test('held by the body it stays while the dab moves; carried it goes along', () => {
    const fixed = [0, 0.125].map((x) => heightNear(stamped({ holds: 'surface' }, x), 0.0625, 0.0625));
    expect(fixed[1]).toBeCloseTo(fixed[0], 6);
    const carried = [0, 0.125].map((x) => stamped({ holds: 'dab' }, x));
    expect(heightNear(carried[1], 0.0625 + 0.125, 0.0625)).toBeCloseTo(heightNear(carried[0], 0.0625, 0.0625), 5);
    expect(heightNear(carried[1], 0.0625, 0.0625)).not.toBeCloseTo(heightNear(carried[0], 0.0625, 0.0625), 3);
  });

  test('depth 0 is no tooth, and inverted takes what the other leaves', () => {
    const whole = heightNear(stamped({ depth: 0 }, 0), 0.0625, 0.0625);
    expect(whole).toBeCloseTo(0.08, 6);
    const both = [false, true].map((invert) => heightNear(stamped({ invert }, 0), 0.0625, 0.0625));
    expect(both[0] + both[1]).toBeCloseTo(whole, 5);
  });
});

describe('direction', () => {
  /** What a stamp beside an edge of the tile moved, and along which axes. */
  function pulled(direction: 'dab' | 'own' | 'view' | 'z', footing: number): { moved: number; sideways: number } {
    const s = session(surface(buildMesh(body('tile', 96))), { replay: true });
    const before = bytes(s);
    beginStroke(
      s,
      start(
        testBrush({
          stroke: { type: 'pull', size: 0.3 },
          touch: { direction, footing, falloff: { ...FULL, nodes: [] } },
        }),
      ),
    );
    extendStroke(s, [down(0.9, 0), down(0.9, 0.2)]);
    endStroke(s);
    const after = bytes(s);
    let [moved, sideways] = [0, 0];
    after.forEach((c, i) => {
      if (i % 3 === 2) moved = Math.max(moved, Math.abs(c - before[i]));
      else sideways = Math.max(sideways, Math.abs(c - before[i]));
    });
    return { moved, sideways };
  }

  test('footing 0 beside a right-angled edge pulls straight out along the face under the pointer', () => {
    const { moved, sideways } = pulled('dab', 0);
    expect(moved).toBeCloseTo(0.2, 5);
    expect(sideways).toBeLessThan(1e-6);
  });

  test('each point’s own normal leans over the edge, the axis and the view don’t', () => {
    expect(pulled('own', 0).sideways).toBeGreaterThan(0.05);
    expect(pulled('z', 100).sideways).toBeLessThan(1e-6);
    expect(pulled('view', 100).sideways).toBeLessThan(1e-6);
  });

  test('own normals are those the stroke began with: Even strokes don’t run away', () => {
    const s = session(surface(buildMesh(body('ball', 48))), { replay: true });
    const brush = testBrush({ stroke: { size: 0.3, spacing: 5 }, touch: { direction: 'own', overlaps: 'even' } });
    beginStroke(s, start(brush));
    extendStroke(s, [down(-0.3, 0), down(0.3, 0), down(-0.3, 0)]);
    endStroke(s);
    const p = bytes(s);
    let top = 0;
    for (let i = 0; i < p.length; i += 3) top = Math.max(top, Math.hypot(p[i], p[i + 1], p[i + 2]));
    expect(top).toBeCloseTo(1.06, 3);
  });
});

function dot(a: readonly number[], b: readonly number[]): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

function across(n: readonly number[]): [number[], number[]] {
  const a = [n[1], -n[0], 0];
  const length = Math.hypot(...a);
  const unit = a.map((c) => c / length);
  return [unit, [n[1] * unit[2] - n[2] * unit[1], n[2] * unit[0] - n[0] * unit[2], n[0] * unit[1] - n[1] * unit[0]]];
}
