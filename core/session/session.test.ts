import { resolveBrush } from '#core/brush';
import { castHeights, castTones } from '#core/cast';
import { body, buildMesh, fitLeaf, plane, positionsIn, positionsOut, type Mesh } from '#core/mesh';
import { newPicture, psnr, pyramid } from '#core/picture';
import { seeded } from '#core/random';
import { ACTIONS, FALLOFF_KINDS, newBrush } from '#core/settings';
import { drainChanged, surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import { abandon, beginStroke, clearStrokes, endStroke, extendStroke, redo, replay, session, undo, type Session } from './session';
import { BRUSH_ID, down, heightNear, slabSession, start, stroke, testBrush, type BrushChange } from './testKit';

const bytes = (s: Session) => s.surface.mesh.positions.slice();
const press: BrushChange = { stroke: { type: 'press', size: 0.4 }, touch: { falloff: { kind: 'full', hold: 0.5, nodes: [] } } };
const trail: BrushChange = { stroke: { type: 'trail', size: 0.2 }, touch: { strength: 40 } };

describe('one dab', () => {
  test('lifts the plain form by depth · relief · 2r · f · strength', () => {
    const s = slabSession();
    stroke(s, testBrush({ ...press, form: { depth: 200 }, touch: { ...press.touch, strength: 50 } }), [[0, 0]]);
    expect(heightNear(s, 0, 0)).toBeCloseTo(2 * 0.1 * 0.8 * 0.5, 6);
    expect(heightNear(s, 0.375, 0)).toBeCloseTo(0.08, 6);
    expect(heightNear(s, 0.5, 0)).toBe(0);
  });

  test('digs by as much as it lifts', () => {
    const up = slabSession();
    const dug = slabSession();
    stroke(up, testBrush(press), [[0.1, 0.2]]);
    stroke(dug, testBrush(press), [[0.1, 0.2]], { dig: true });
    const a = bytes(up);
    const b = bytes(dug);
    for (let i = 2; i < a.length; i += 3 * 17) expect(b[i]).toBe(a[i] === 0 ? 0 : -a[i]!);
  });

  test.each(FALLOFF_KINDS)('falls off as %s does', (kind) => {
    const s = slabSession(plane(128, 2));
    const falloff = { kind, hold: 0.5, nodes: [{ x: 0, y: 1, corner: true }, { x: 1, y: 0, corner: true }] };
    stroke(s, testBrush({ stroke: { type: 'press', size: 0.5 }, touch: { falloff } }), [[0, 0]]);
    const half = heightNear(s, 0.25, 0) / heightNear(s, 0, 0);
    const wanted = { full: 1, plateau: 1, dome: Math.sqrt(0.75), bell: 0.5625, cone: 0.5, needle: 0.125, own: 0.5 }[kind];
    expect(half).toBeCloseTo(wanted, 3);
  });

  test('a square footprint fills its corners, a round one does not', () => {
    for (const [footprint, corner] of [['round', 0], ['square', 0.08]] as const) {
      const s = slabSession();
      stroke(s, testBrush({ ...press, form: { footprint } }), [[0, 0]]);
      expect(heightNear(s, 0.34, 0.34)).toBeCloseTo(corner, 6);
    }
  });

  test('leaves alone what is deeper than its reach or turned away', () => {
    const s = session(surface(buildMesh(body('ball', 24))), { replay: false });
    const before = bytes(s);
    stroke(s, testBrush({ stroke: { type: 'press', size: 1.5 }, touch: { reachDepth: 4, overlaps: 'add', falloff: { kind: 'full', hold: 0, nodes: [] } } }), [[0, 0]]);
    const p = s.surface.mesh.positions;
    let front = 0;
    let back = 0;
    for (let i = 0; i < p.length; i += 3) {
      if (p[i + 2] === before[i + 2]) continue;
      if (before[i + 2]! > -0.1) front++;
      else back++;
    }
    expect(front).toBeGreaterThan(500);
    expect(back).toBe(0);
  });

  test('an alpha is stamped the right way up, turned and inside its ring', () => {
    const picture = newPicture(64);
    // White in the upper right quarter.
    for (let j = 0; j < 32; j++) for (let i = 32; i < 64; i++) picture.data[j * 64 + i] = 1;
    const form = { pyramid: pyramid(picture), relief: 0.2, vector: null };
    const s = slabSession(plane(128, 2));
    stroke(s, testBrush(press, form), [[0, 0]]);
    expect(heightNear(s, 0.2, 0.2)).toBeCloseTo(0.2 * 0.8, 6);
    expect(heightNear(s, -0.2, 0.2)).toBe(0);
    const turned = slabSession(plane(128, 2));
    stroke(turned, testBrush({ ...press, form: { turn: 90 } }, form), [[0, 0]]);
    expect(heightNear(turned, -0.2, 0.2)).toBeCloseTo(0.16, 6);
    expect(heightNear(turned, 0.2, 0.2)).toBeCloseTo(0, 6);
    const shrunk = slabSession(plane(128, 2));
    stroke(shrunk, testBrush({ ...press, form: { fit: 2 } }, form), [[0, 0]]);
    // Half as wide, so half as high: the proportion stays.
    expect(heightNear(shrunk, 0.1, 0.1)).toBeCloseTo(0.08, 6);
    expect(heightNear(shrunk, 0.25, 0.25)).toBe(0);
  });

  test('ground leaves its grey where it is and digs below it', () => {
    const picture = newPicture(16, 16, 0.5);
    picture.data.fill(0.25, 0, 128);
    const s = slabSession(plane(128, 2));
    stroke(s, testBrush({ ...press, form: { ground: 0.5 } }, { pyramid: pyramid(picture), relief: 0.2, vector: null }), [[0, 0]]);
    expect(heightNear(s, 0, -0.2)).toBeCloseTo(0, 9);
    expect(heightNear(s, 0, 0.2)).toBeCloseTo(-0.25 * 0.2 * 0.8, 6);
  });
});

test('On surface and From view agree on a plane that faces the view, and differ on a slope', () => {
  const tilted = plane(64, 2);
  for (let i = 0; i < tilted.positions.length; i += 3) tilted.positions[i + 2] = tilted.positions[i]! * 0.6;
  const run = (mapping: 'surface' | 'view', raw = plane(64, 2)) => {
    const s = slabSession(raw);
    stroke(s, testBrush({ ...press, stroke: { ...press.stroke, mapping } }), [[0.2, 0.1]]);
    return bytes(s);
  };
  expect(run('view')).toEqual(run('surface'));
  const rest = buildMesh(tilted).positions;
  const slid = run('view', tilted).filter((x, i) => i % 3 === 0 && x !== rest[i]);
  expect(slid).toHaveLength(0);
  expect(run('surface', tilted)).not.toEqual(run('view', tilted));
});

describe('strokes', () => {
  test('a trail lays a dab each spacing, however its samples are grouped', () => {
    const brush = testBrush({ stroke: { type: 'trail', size: 0.05, spacing: 50 }, form: { depth: 0 } });
    const straight = stroke(slabSession(), brush, [[-0.5, 0], [0.51, 0]]);
    expect(straight.dabs).toBe(21);
    const one = slabSession();
    const many = slabSession();
    const lifting = testBrush(trail);
    const points = Array.from({ length: 30 }, (_, i) => [-0.6 + i * 0.04, 0.3 * Math.sin(i / 4)] as const);
    stroke(one, lifting, points);
    beginStroke(many, start(lifting));
    for (const [x, y] of points) extendStroke(many, [down(x, y)]);
    endStroke(many);
    expect(bytes(many)).toEqual(bytes(one));
  });

  test('a trail that leaves the slab goes on where it comes back', () => {
    const brush = testBrush({ stroke: { type: 'trail', size: 0.05, spacing: 100 }, form: { depth: 0 } });
    expect(stroke(slabSession(), brush, [[0.8, 0], [1.5, 0], [0.8, 0.5]]).dabs).toBe(2);
    expect(stroke(slabSession(), brush, [[3, 0], [4, 0]]).dabs).toBe(0);
  });

  test('Even has no peak where dabs overlap, Add up has', () => {
    const points = [[-0.5, 0], [0.5, 0]] as const;
    const change: BrushChange = { stroke: { size: 0.2, spacing: 5 }, touch: { strength: 100, falloff: { kind: 'dome', hold: 0, nodes: [] } } };
    const even = slabSession(plane(128, 2));
    stroke(even, testBrush({ ...change, touch: { ...change.touch, overlaps: 'even' } }), points);
    expect(heightNear(even, 0, 0)).toBeCloseTo(0.04, 3);
    const add = slabSession(plane(128, 2));
    stroke(add, testBrush(change), points);
    expect(heightNear(add, 0, 0)).toBeGreaterThan(0.2);
  });

  test('Grow takes its size and turn from the drag', () => {
    const s = slabSession(plane(128, 2));
    const picture = newPicture(32);
    for (let j = 12; j < 20; j++) for (let i = 16; i < 32; i++) picture.data[j * 32 + i] = 1;
    const brush = testBrush({ ...press, stroke: { type: 'grow' } }, { pyramid: pyramid(picture), relief: 0.1, vector: null });
    stroke(s, brush, [[0, 0], [0.1, 0.2], [0, 0.5]]);
    // The bar points right in the picture, so it points where the drag went.
    expect(heightNear(s, 0, 0.3)).toBeCloseTo(0.1, 5);
    expect(heightNear(s, 0.3, 0)).toBe(0);
    expect(heightNear(s, 0, 0.53)).toBe(0);
  });

  test('a Press slides: only the place of release is stamped', () => {
    const s = slabSession();
    stroke(s, testBrush({ ...press, stroke: { type: 'press', size: 0.1 } }), [[-0.5, 0], [0, 0.2], [0.5, 0]]);
    const t = slabSession();
    stroke(t, testBrush({ ...press, stroke: { type: 'press', size: 0.1 } }), [[0.5, 0]]);
    expect(bytes(s)).toEqual(bytes(t));
  });

  test('Move carries the clay with the pointer', () => {
    const s = slabSession();
    const before = bytes(s);
    stroke(s, testBrush({ touch: { action: 'move' }, stroke: { size: 0.4 } }), [[0, 0], [0.5, 0.5], [0.1, 0]]);
    const p = bytes(s);
    const middle = before.findIndex((x, i) => i % 3 === 0 && Math.abs(x) < 1e-6 && Math.abs(before[i + 1]!) < 1e-6);
    expect(p[middle]).toBeCloseTo(0.1, 5);
    expect(p[middle + 1]).toBeCloseTo(0, 5);
  });

  test('Smooth keeps a slope, flattens a spike and leaves the border alone', () => {
    const s = slabSession();
    stroke(s, testBrush({ stroke: { type: 'press', size: 0.05 } }), [[0, 0]]);
    const spike = heightNear(s, 0, 0);
    const border = bytes(s).filter((_, i, p) => Math.abs(p[i - (i % 3)]!) === 1);
    stroke(s, testBrush({ touch: { action: 'smooth', falloff: { kind: 'full', hold: 0, nodes: [] } }, stroke: { size: 1.2 } }), [[-0.5, 0], [0.5, 0]]);
    expect(heightNear(s, 0, 0)).toBeLessThan(spike * 0.5);
    expect(heightNear(s, 0.8, 0.8)).toBeCloseTo(0, 6);
    expect(bytes(s).filter((_, i, p) => Math.abs(p[i - (i % 3)]!) === 1)).toEqual(border);
  });

  test('Crease cuts along the stroke and draws the clay together', () => {
    const s = slabSession(plane(128, 2));
    stroke(s, testBrush({ touch: { action: 'crease', pinch: 40, falloff: { kind: 'needle', hold: 0, nodes: [] } }, stroke: { size: 0.2, spacing: 10 } }), [[-0.6, 0], [0.6, 0]]);
    expect(heightNear(s, 0, 0)).toBeLessThan(-0.01);
    const p = bytes(s);
    const moved = p.findIndex((y, i) => i % 3 === 1 && Math.abs(p[i - 1]!) < 0.01 && y > 0.02 && y < 0.045);
    expect(moved).toBeGreaterThan(-1);
  });

  test('scatter is seeded: same seed same bytes, other seed other bytes, all near the path', () => {
    const brush = testBrush({ stroke: { size: 0.08, spacing: 80, scatter: 150 } });
    const run = (seed: number) => {
      const s = slabSession();
      stroke(s, brush, [[-0.5, 0], [0.5, 0]], { seed });
      return bytes(s);
    };
    expect(run(5)).toEqual(run(5));
    expect(run(5)).not.toEqual(run(6));
    const far = run(5).filter((z, i, p) => i % 3 === 2 && z !== 0 && Math.abs(p[i - 1]!) > 0.08 * 2.5 + 1e-6);
    expect(far).toHaveLength(0);
  });

  test.each([[true, false], [false, true], [true, true]])('mirror x %p, y %p: symmetric input gives symmetric output', (mirrorX, mirrorY) => {
    const s = slabSession();
    stroke(s, testBrush(trail), [[0.2, 0.3], [0.5, 0.4], [0.4, 0.7]], { symmetry: { ...NO_SYMMETRY, mirrorX, mirrorY } });
    stroke(s, testBrush({ touch: { action: 'crease' }, stroke: { size: 0.1 } }), [[0.3, 0.1], [0.6, 0.5]], { symmetry: { ...NO_SYMMETRY, mirrorX, mirrorY } });
    stroke(s, testBrush({ touch: { action: 'move' }, stroke: { size: 0.3 } }), [[0.4, 0.4], [0.5, 0.35]], { symmetry: { ...NO_SYMMETRY, mirrorX, mirrorY } });
    const grid = positionsOut(s.surface.mesh);
    let worst = 0;
    let moved = 0;
    for (let j = 0; j <= 64; j++) {
      for (let i = 0; i <= 64; i++) {
        const a = (j * 65 + i) * 3;
        const b = ((mirrorY ? 64 - j : j) * 65 + (mirrorX ? 64 - i : i)) * 3;
        worst = Math.max(worst, Math.abs(grid[a]! * (mirrorX ? -1 : 1) - grid[b]!), Math.abs(grid[a + 1]! * (mirrorY ? -1 : 1) - grid[b + 1]!), Math.abs(grid[a + 2]! - grid[b + 2]!));
        if (grid[a + 2] !== 0) moved++;
      }
    }
    expect(moved).toBeGreaterThan(200);
    expect(worst).toBeLessThan(1e-6);
  });
});

describe('undo, redo, abandon', () => {
  test('undo restores the exact bytes of places, normals and boxes; redo the exact bytes of the stroke', () => {
    const s = slabSession();
    const states = [s.surface.mesh].map(allBytes);
    const brushes = [testBrush(press), testBrush(trail), testBrush({ touch: { action: 'smooth' } }), testBrush({ touch: { action: 'move' } })];
    for (const brush of brushes) {
      stroke(s, brush, [[-0.3, 0.1], [0.2, 0.3], [0.4, -0.2]]);
      states.push(allBytes(s.surface.mesh));
    }
    for (let i = brushes.length - 1; i >= 0; i--) {
      expect(undo(s)).toBe(true);
      expect(same(allBytes(s.surface.mesh), states[i]!)).toBe(true);
    }
    expect(undo(s)).toBe(false);
    for (let i = 1; i <= brushes.length; i++) {
      expect(redo(s)).toBe(true);
      expect(same(allBytes(s.surface.mesh), states[i]!)).toBe(true);
    }
    expect(redo(s)).toBe(false);
  });

  test('an abandoned stamp leaves no trace', () => {
    const s = slabSession();
    const before = allBytes(s.surface.mesh);
    beginStroke(s, start(testBrush(press)));
    extendStroke(s, [down(0, 0), down(0.2, 0.1)]);
    expect(same(allBytes(s.surface.mesh), before)).toBe(false);
    abandon(s);
    expect(same(allBytes(s.surface.mesh), before)).toBe(true);
    expect(undo(s)).toBe(false);
  });

  test('a stroke that missed leaves no undo step; a new stroke clears redo', () => {
    const s = slabSession();
    stroke(s, testBrush(trail), [[5, 5], [6, 6]]);
    expect(s.done).toHaveLength(0);
    stroke(s, testBrush(trail), [[0, 0]]);
    undo(s);
    stroke(s, testBrush(trail), [[0.5, 0]]);
    expect(redo(s)).toBe(false);
  });

  test('undo copies beyond the limit are dropped, oldest first', () => {
    const s = session(surface(buildMesh(plane(64, 2))), { replay: true, undoLimit: 100_000 });
    const untouched = bytes(s);
    for (let i = 0; i < 6; i++) stroke(s, testBrush({ stroke: { size: 0.5 } }), [[i / 10, 0], [0, i / 10]]);
    expect(s.undoBytes).toBeLessThanOrEqual(100_000);
    expect(s.done[0]!.before).toBeNull();
    let steps = 0;
    while (undo(s)) steps++;
    expect(steps).toBeGreaterThan(0);
    expect(steps).toBeLessThan(6);
    clearStrokes(s);
    expect(bytes(s)).toEqual(untouched);
  });
});

describe('replay', () => {
  test('equals the first run to the byte, and follows a changed setting', () => {
    const s = session(surface(buildMesh(body('ball', 32))), { replay: true });
    const rays = (x: number, y: number) => ({ origin: [x, y, 3], direction: [0, 0, -1] }) as const;
    const draw = (brush: ReturnType<typeof testBrush>) => {
      beginStroke(s, start(brush, { seed: 9 }));
      extendStroke(s, [rays(-0.4, 0), rays(0, 0.3), rays(0.4, 0)]);
      endStroke(s);
    };
    const first = testBrush({ stroke: { size: 0.15, scatter: 60 } });
    const other = { ...testBrush({ touch: { action: 'smooth' } }), id: 'other' };
    draw(first);
    draw(other);
    const once = bytes(s);
    replay(s, new Map());
    expect(bytes(s)).toEqual(once);
    const deeper = testBrush({ stroke: { size: 0.15, scatter: 60 }, form: { depth: 200 } });
    replay(s, new Map([[deeper.id, deeper]]));
    expect(bytes(s)).not.toEqual(once);
    const fresh = session(surface(buildMesh(body('ball', 32))), { replay: true });
    for (const brush of [deeper, other]) {
      beginStroke(fresh, start(brush, { seed: 9 }));
      extendStroke(fresh, [rays(-0.4, 0), rays(0, 0.3), rays(0.4, 0)]);
      endStroke(fresh);
    }
    expect(bytes(s)).toEqual(bytes(fresh));
    replay(s, new Map([[first.id, first]]));
    expect(bytes(s)).toEqual(once);
  });
});

test('a brush read from its stored form gives the same dab', () => {
  const brush = { ...newBrush(BRUSH_ID, 'Kept'), stroke: { ...newBrush(BRUSH_ID, 'x').stroke, scatter: 40 } };
  const again = JSON.parse(JSON.stringify(brush)) as typeof brush;
  const a = slabSession();
  const b = slabSession();
  stroke(a, resolveBrush(brush, null), [[0, 0], [0.5, 0.2]]);
  stroke(b, resolveBrush(again, null), [[0, 0], [0.5, 0.2]]);
  expect(bytes(a)).toEqual(bytes(b));
});

test('random strokes: no NaN, boxes hold what they should, the view hears of every change, undo is exact', () => {
  const random = seeded(11);
  const s = slabSession(plane(48, 2));
  const untouched = allBytes(s.surface.mesh);
  for (let i = 0; i < 60; i++) {
    const before = bytes(s);
    drainChanged(s.surface);
    const brush = testBrush({
      touch: { action: ACTIONS[i % ACTIONS.length]!, overlaps: random() < 0.5 ? 'even' : 'add', footing: random() * 100 },
      stroke: { type: (['trail', 'press', 'grow'] as const)[Math.floor(random() * 3)]!, size: 0.02 + random() * 0.5, scatter: random() * 100, spacing: 10 + random() * 100 },
      form: { footprint: random() < 0.5 ? 'round' : 'square', turn: random() * 360 - 180 },
    });
    const points = Array.from({ length: 5 }, () => [random() * 2.4 - 1.2, random() * 2.4 - 1.2] as const);
    stroke(s, brush, points, { seed: i, dig: random() < 0.4, symmetry: { ...NO_SYMMETRY, mirrorX: random() < 0.3 } });
    const heard = new Set(drainChanged(s.surface));
    const p = s.surface.mesh.positions;
    let unheard = 0;
    for (let k = 0; k < p.length; k++) if (p[k] !== before[k] && !heard.has(Math.floor(k / 768))) unheard++;
    expect(unheard).toBe(0);
    expect(p.some(Number.isNaN)).toBe(false);
  }
  const { mesh } = s.surface;
  const kept = mesh.boxes.slice();
  for (let leaf = 0; leaf < mesh.leafCount; leaf++) fitLeaf(mesh, leaf);
  expect(mesh.boxes).toEqual(kept);
  while (undo(s));
  expect(same(allBytes(mesh), untouched)).toBe(true);
});

test('round trip: cast a slab, stamp it once at 100 % on a flat body, cast that: over 50 dB', () => {
  const side = 1.8;
  const frame = { x: 0, y: 0, turn: 0, side };
  const slab = buildMesh(plane(512, 2));
  const positions = positionsOut(slab);
  for (let i = 0; i < positions.length; i += 3) {
    const x = positions[i]!;
    const y = positions[i + 1]!;
    positions[i + 2] = Math.max(0, 0.7 - Math.hypot(x, y)) * (0.25 + 0.08 * Math.cos(14 * x) * Math.sin(11 * y));
  }
  positionsIn(slab, positions);
  const first = castHeights(slab, { frame, size: 512, samples: 1 });
  const tones = castTones(first, side, null, null);

  const flat = slabSession(plane(512, 2));
  stroke(flat, testBrush({
    stroke: { type: 'press', size: side / 2 }, form: { footprint: 'square' },
    touch: { falloff: { kind: 'full', hold: 0, nodes: [] }, strength: 100 },
  }, { pyramid: pyramid(tones.picture), relief: tones.relief, vector: null }), [[0, 0]]);
  const second = castTones(castHeights(flat.surface.mesh, { frame, size: 512, samples: 1 }), side, tones.floor, tones.crown);
  expect(psnr(tones.picture, second.picture)).toBeGreaterThan(50);
});

/** A copy of everything that strokes change: places, normals, masks, boxes. */
function allBytes(mesh: Mesh): Uint8Array {
  const parts = [mesh.positions, mesh.normals, mesh.mask, mesh.boxes].map((a) => new Uint8Array(a.buffer, a.byteOffset, a.byteLength));
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

function same(a: Uint8Array, b: Uint8Array): boolean {
  return a.length === b.length && a.every((x, i) => x === b[i]);
}
