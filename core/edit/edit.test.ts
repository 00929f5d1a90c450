import { buildMesh, plane, positionsOut, type Mesh, type RawMesh } from '#core/mesh';
import { newPicture, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import { ByNumberSchema, PART_CELLS, SetFormSchema, type ByNumber, type SetForm } from '#core/settings';
import { makeEdit, session, tryEdit, abandon, keepEdit, undo, redo, type Session } from '#core/session';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import type { Edit } from './index';

const NO_PARTS = new Map<string, Picture>();
const flat = (cells = 64): Session => session(surface(buildMesh(plane(cells, 2))), { replay: false });
const numbers = (change: Partial<ByNumber>): ByNumber => ({ ...ByNumberSchema.parse({}), ...change });
const places = (s: Session): Float32Array => positionsOut(s.surface.mesh);

const heights = (s: Session): Float32Array => places(s).filter((_, i) => i % 3 === 2);

/** Height and mask of the grid point nearest to (x, y). */
function at(s: Session, x: number, y: number): { z: number; mask: number } {
  const { mesh } = s.surface;
  const cells = Math.round(Math.sqrt(mesh.vertexCount)) - 1;
  const wanted = Math.round(((y + 1) / 2) * cells) * (cells + 1) + Math.round(((x + 1) / 2) * cells);
  const v = mesh.order.indexOf(wanted);
  return { z: mesh.positions[v * 3 + 2], mask: mesh.mask[v] };
}

function bumpy(): Session {
  const raw: RawMesh = plane(64, 2);
  for (let i = 0; i < raw.positions.length; i += 3)
    raw.positions[i + 2] = 0.1 * Math.sin(raw.positions[i] * 6) * Math.cos(raw.positions[i + 1] * 5);
  return session(surface(buildMesh(raw)), { replay: false });
}

describe('masks', () => {
  const rectangle: Edit = {
    kind: 'mask-shape',
    shape: { kind: 'rectangle', x: 0.3, y: 0.2, turnRad: 0, halfWidth: 0.2, halfHeight: 0.1 },
    mode: 'add',
    symmetry: NO_SYMMETRY,
  };

  test('a rectangle masks what is inside it, and takes away again', () => {
    const s = flat();
    makeEdit(s, rectangle);
    expect(at(s, 0.3, 0.2).mask).toBe(1);
    expect(at(s, 0.44, 0.25).mask).toBe(1);
    expect(at(s, 0.3, 0.35).mask).toBe(0);
    makeEdit(s, { ...rectangle, mode: 'subtract' });
    expect(s.surface.mesh.mask.every((m) => m === 0)).toBe(true);
  });

  test.each([
    ['ellipse', { kind: 'ellipse', x: 0.03, y: -0.02, turnRad: 0.3, halfWidth: 0.5, halfHeight: 0.5 }],
    [
      'lasso',
      {
        kind: 'lasso',
        points: Array.from({ length: 240 }, (_, i) => [
          0.03 + 0.5 * Math.cos((i / 120) * Math.PI),
          -0.02 + 0.5 * Math.sin((i / 120) * Math.PI),
        ]).flat(),
      },
    ],
  ] as const)('raised by number, what a round %s masks ends along the circle, not along the grid', (_, shape) => {
    const s = session(surface(buildMesh(plane(128, 2))), { replay: false });
    makeEdit(s, { kind: 'mask-shape', shape, mode: 'add', symmetry: NO_SYMMETRY });
    makeEdit(s, { kind: 'mask-invert' });
    makeEdit(s, { kind: 'by-number', change: 'lift', numbers: numbers({ lift: 0.2 }) });
    const places = positionsOut(s.surface.mesh);
    const row = 129;
    const spacing = 2 / 128;
    let worst = 0;
    let crossings = 0;
    for (let j = 0; j < row; j++) {
      for (let i = 0; i + 1 < row; i++) {
        const [a, b] = [places[(j * row + i) * 3 + 2] - 0.1, places[(j * row + i + 1) * 3 + 2] - 0.1];
        if (a > 0 === b > 0) continue;
        crossings++;
        const x = places[(j * row + i) * 3] + (a / (a - b)) * spacing;
        const y = places[(j * row + i) * 3 + 1];
        worst = Math.max(worst, Math.abs(Math.hypot(x - 0.03, y + 0.02) - 0.5));
      }
    }
    expect(crossings).toBeGreaterThan(100);
    expect(worst / spacing).toBeLessThan(0.15);
  });

  test('a shape added twice is as one that is added once; taken away it leaves nothing, from a whole mask its edge stays soft', () => {
    const s = flat();
    const shape = {
      kind: 'mask-shape',
      shape: { kind: 'ellipse', x: 0, y: 0, turnRad: 0, halfWidth: 0.4, halfHeight: 0.3 },
      mode: 'add',
      symmetry: NO_SYMMETRY,
    } as const;
    makeEdit(s, shape);
    const once = s.surface.mesh.mask.slice();
    makeEdit(s, shape);
    expect(s.surface.mesh.mask).toEqual(once);
    expect(once.some((m) => m > 0.1 && m < 0.9)).toBe(true);
    makeEdit(s, { ...shape, mode: 'subtract' });
    expect(s.surface.mesh.mask.every((m) => m === 0)).toBe(true);
    makeEdit(s, { kind: 'mask-invert' });
    makeEdit(s, { ...shape, mode: 'subtract' });
    s.surface.mesh.mask.forEach((m, i) => expect(m).toBeCloseTo(1 - once[i], 6));
  });

  test('a turned ellipse and a lasso', () => {
    const s = flat();
    makeEdit(s, {
      kind: 'mask-shape',
      shape: { kind: 'ellipse', x: 0, y: 0, turnRad: Math.PI / 2, halfWidth: 0.5, halfHeight: 0.1 },
      mode: 'add',
      symmetry: NO_SYMMETRY,
    });
    expect(at(s, 0, 0.4).mask).toBe(1);
    expect(at(s, 0.4, 0).mask).toBe(0);
    const t = flat();
    // A C: its hollow is outside.
    makeEdit(t, {
      kind: 'mask-shape',
      shape: {
        kind: 'lasso',
        points: [-0.5, -0.5, 0.5, -0.5, 0.5, -0.3, -0.3, -0.3, -0.3, 0.3, 0.5, 0.3, 0.5, 0.5, -0.5, 0.5],
      },
      mode: 'add',
      symmetry: NO_SYMMETRY,
    });
    expect(at(t, -0.4, 0).mask).toBe(1);
    expect(at(t, 0.2, 0).mask).toBe(0);
    expect(at(t, 0.4, 0.4).mask).toBe(1);
  });

  test('shapes are repeated on every copy of the symmetry', () => {
    const s = flat();
    makeEdit(s, { ...rectangle, symmetry: { ...NO_SYMMETRY, copies: 4 } });
    for (const [x, y] of [
      [0.3, 0.2],
      [-0.2, 0.3],
      [-0.3, -0.2],
      [0.2, -0.3],
    ] as const)
      expect(at(s, x, y).mask).toBe(1);
    const t = flat();
    makeEdit(t, { ...rectangle, symmetry: { ...NO_SYMMETRY, mirrorX: true } });
    expect(at(t, -0.3, 0.2).mask).toBe(1);
    expect(at(t, 0.3, -0.2).mask).toBe(0);
  });

  test('invert twice, clear, and undo of each give exact bytes', () => {
    const s = flat();
    makeEdit(s, rectangle);
    const before = s.surface.mesh.mask.slice();
    makeEdit(s, { kind: 'mask-invert' });
    expect(at(s, 0.3, 0.2).mask).toBe(0);
    expect(at(s, -0.9, 0).mask).toBe(1);
    makeEdit(s, { kind: 'mask-invert' });
    expect(s.surface.mesh.mask).toEqual(before);
    makeEdit(s, { kind: 'mask-clear' });
    undo(s);
    expect(s.surface.mesh.mask).toEqual(before);
    undo(s);
    undo(s);
    undo(s);
    expect(s.surface.mesh.mask.every((m) => m === 0)).toBe(true);
    redo(s);
    expect(s.surface.mesh.mask).toEqual(before);
  });

  test('grow and shrink go by rings, soften keeps between 0 and 1 and blurs the edge', () => {
    const s = flat();
    makeEdit(s, rectangle);
    const count = (): number => s.surface.mesh.mask.filter((m) => m === 1).length;
    const first = count();
    makeEdit(s, { kind: 'mask-grow', steps: 3 });
    expect(at(s, 0.3, 0.2 + 0.1 + 2 / 32 - 0.02).mask).toBe(1);
    expect(count()).toBeGreaterThan(first);
    makeEdit(s, { kind: 'mask-grow', steps: -3 });
    expect(at(s, 0.3, 0.2).mask).toBe(1);
    expect(count()).toBeLessThanOrEqual(first * 1.2);
    makeEdit(s, { kind: 'mask-soften', steps: 4 });
    const { mask } = s.surface.mesh;
    expect(mask.some((m) => m > 0.2 && m < 0.8)).toBe(true);
    expect(Math.max(...mask)).toBeLessThanOrEqual(1);
    expect(Math.min(...mask)).toBeGreaterThanOrEqual(0);
  });

  test('from height, from slope, from an alpha in a turned frame', () => {
    const raw = plane(64, 2);
    for (let i = 0; i < raw.positions.length; i += 3) raw.positions[i + 2] = Math.max(0, raw.positions[i]);
    const ramp = (): Session => session(surface(buildMesh(raw)), { replay: false });
    const s = ramp();
    makeEdit(s, { kind: 'mask-height', low: 0.5, high: 2, soft: 0.2, mode: 'add' });
    expect(at(s, 0.75, 0).mask).toBe(1);
    expect(at(s, 0.40625, 0).mask).toBeCloseTo(0.53125, 5);
    expect(at(s, 0.2, 0).mask).toBe(0);
    const t = ramp();
    makeEdit(t, { kind: 'mask-slope', low: 40, high: 90, soft: 0, mode: 'add' });
    expect(at(t, 0.5, 0).mask).toBe(1);
    expect(at(t, -0.5, 0).mask).toBe(0);
    const picture = newPicture(32);
    // White in the upper half, which a frame turned by a quarter lays to the left.
    picture.data.fill(1, 0, 512);
    const u = flat();
    makeEdit(u, { kind: 'mask-alpha', picture, frame: { x: 0, y: 0, turn: 90, side: 1 }, mode: 'add' });
    expect(at(u, -0.3, 0).mask).toBe(1);
    expect(at(u, 0.3, 0).mask).toBe(0);
    expect(at(u, -0.8, 0).mask).toBe(0);
  });
});

describe('by number', () => {
  const change = (kind: Extract<Edit, { kind: 'by-number' }>['change'], n: Partial<ByNumber>): Edit => ({
    kind: 'by-number',
    change: kind,
    numbers: numbers(n),
  });

  test('inflate by d and then by −d returns a plane', () => {
    const s = flat();
    const before = places(s);
    makeEdit(s, change('inflate', { inflate: 0.123 }));
    expect(at(s, 0.2, 0.3).z).toBeCloseTo(0.123, 6);
    makeEdit(s, change('inflate', { inflate: -0.123 }));
    expect(Math.max(...places(s).map((x, i) => Math.abs(x - before[i])))).toBeLessThan(1e-7);
  });

  test('masked places stay as they are to the byte under every change', () => {
    for (const kind of ['inflate', 'lift', 'smooth', 'flatten', 'noise', 'terrace'] as const) {
      const s = bumpy();
      makeEdit(s, {
        kind: 'mask-shape',
        shape: { kind: 'ellipse', x: 0, y: 0, turnRad: 0, halfWidth: 0.6, halfHeight: 0.6 },
        mode: 'add',
        symmetry: NO_SYMMETRY,
      });
      const { mesh } = s.surface;
      const before = mesh.positions.slice();
      makeEdit(s, change(kind, { [kind]: kind === 'smooth' ? 5 : kind === 'flatten' ? 80 : 0.07 }));
      let moved = 0;
      let touched = 0;
      for (let v = 0; v < mesh.vertexCount; v++) {
        const same = [0, 1, 2].every((c) => mesh.positions[v * 3 + c] === before[v * 3 + c]);
        if (!same && mesh.mask[v] === 1) touched++;
        else if (!same) moved++;
      }
      expect(touched).toBe(0);
      expect(moved).toBeGreaterThan(200);
    }
  });

  test('smooth keeps the mean height and flattens; flatten by 100 % is level', () => {
    const s = bumpy();
    const mean = (): number =>
      places(s).reduce((sum, x, i) => sum + (i % 3 === 2 ? x : 0), 0) / s.surface.mesh.vertexCount;
    const spread = (): number => Math.max(...places(s).filter((_, i) => i % 3 === 2));
    const [was, high] = [mean(), spread()];
    makeEdit(s, change('smooth', { smooth: 20 }));
    expect(mean()).toBeCloseTo(was, 3);
    expect(spread()).toBeLessThan(high);
    makeEdit(s, change('flatten', { flatten: 100 }));
    const level = mean();
    expect(Math.max(...heights(s).map((z) => Math.abs(z - level)))).toBeLessThan(1e-5);
  });

  test('noise is seeded: same seed same bytes, another seed others; terrace makes steps', () => {
    const run = (seed: number): Float32Array => {
      const s = flat();
      makeEdit(s, change('noise', { noise: 0.05, noiseSeed: seed, noiseScale: 0.3 }));
      return places(s);
    };
    expect(run(3)).toEqual(run(3));
    expect(run(3)).not.toEqual(run(4));
    expect(Math.max(...run(3).filter((_, i) => i % 3 === 2))).toBeLessThanOrEqual(0.05);
    const s = bumpy();
    makeEdit(s, change('terrace', { terrace: 0.05, terraceSoft: 0 }));
    expect(Math.max(...heights(s).map((z) => Math.abs(z / 0.05 - Math.round(z / 0.05))))).toBeLessThan(1e-5);
  });

  test('what is tried is shown, tried anew from the beginning, and dropped without a trace', () => {
    const s = bumpy();
    const before = places(s);
    tryEdit(s, change('lift', { lift: 0.1 }));
    tryEdit(s, change('lift', { lift: 0.2 }));
    expect(places(s)[2] - before[2]).toBeCloseTo(0.2, 6);
    abandon(s);
    expect(places(s)).toEqual(before);
    tryEdit(s, change('lift', { lift: 0.3 }));
    expect(keepEdit(s)).toBe(true);
    expect(s.done).toHaveLength(1);
    undo(s);
    expect(places(s)).toEqual(before);
  });

  test('a change of nothing leaves no step', () => {
    const s = bumpy();
    expect(makeEdit(s, change('lift', { lift: 0 }))).toBe(false);
    expect(makeEdit(s, { kind: 'mask-clear' })).toBe(false);
    expect(s.done).toHaveLength(0);
  });

  test('back to flat clay, and undo brings everything back', () => {
    const s = bumpy();
    const before = places(s);
    makeEdit(s, { kind: 'untouched', side: 2 });
    expect(places(s)).toEqual(plane(64, 2).positions);
    undo(s);
    expect(places(s)).toEqual(before);
  });
});

describe('set forms', () => {
  const setForm = (change: Partial<SetForm>): SetForm =>
    SetFormSchema.parse({
      id: '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e',
      form: 'disc',
      size: 0.3,
      height: 0.1,
      edge: 0,
      ...change,
    });

  test.each([
    ['disc', {}, 0.1, 0.2, 0],
    ['dome', {}, 0.1, 0.1 * Math.sqrt(1 - (0.1875 / 0.3) ** 2), 0],
    ['hex', {}, 0.1, 0.1, 0],
    ['bar', { width: 100 }, 0.1, 0.1, 0],
    ['pin', {}, 0.1, 0.1 * (0.7 + 0.3 * Math.sqrt(1 - (0.1875 / 0.3) ** 2)), 0],
  ] as const)('a %s stands at its height', (form, change, top, beside, outside) => {
    const s = flat(128);
    makeEdit(s, { kind: 'bake', setForms: [setForm({ form, ...change })], parts: NO_PARTS });
    expect(at(s, 0, 0).z).toBeCloseTo(top, 6);
    if (form !== 'disc') expect(at(s, 0.1875, 0).z).toBeCloseTo(beside, 5);
    expect(at(s, 0.5, 0.5).z).toBe(outside);
  });

  test('a ring has a hole, a wedge rises, a sunk slot goes down', () => {
    const s = flat(128);
    makeEdit(s, { kind: 'bake', setForms: [setForm({ form: 'ring', width: 40 })], parts: NO_PARTS });
    expect(at(s, 0, 0).z).toBe(0);
    expect(at(s, 0.25, 0).z).toBeCloseTo(0.1, 6);
    const t = flat(128);
    makeEdit(t, { kind: 'bake', setForms: [setForm({ form: 'wedge', width: 50 })], parts: NO_PARTS });
    expect(at(t, 0, 0).z).toBeCloseTo(0.05, 5);
    expect(at(t, 0.25, 0).z).toBeGreaterThan(at(t, -0.25, 0).z);
    const u = flat(128);
    makeEdit(u, { kind: 'bake', setForms: [setForm({ form: 'bar', width: 20, set: 'sunk' })], parts: NO_PARTS });
    expect(at(u, 0.2, 0).z).toBeCloseTo(-0.1, 6);
  });

  test('a square part stands up to its corners', () => {
    const s = flat(128);
    const heights = newPicture(PART_CELLS, PART_CELLS, 1);
    const part = { name: 'block', mesh: 'a'.repeat(64), up: '+z' as const, heights: 'b'.repeat(64) };
    makeEdit(s, {
      kind: 'bake',
      setForms: [setForm({ form: 'part', part })],
      parts: new Map([[part.heights, heights]]),
    });
    expect(at(s, 0.28125, 0.28125).z).toBeCloseTo(0.1, 6);
    expect(at(s, 0.328125, 0).z).toBe(0);
    expect(() => makeEdit(s, { kind: 'bake', setForms: [setForm({ form: 'part', part })], parts: NO_PARTS })).toThrow(
      'The heights of “block” are not loaded.',
    );
  });

  test('rows and rings stand where they should, turned with their place', () => {
    const s = flat(128);
    makeEdit(s, {
      kind: 'bake',
      setForms: [setForm({ size: 0.05, repeat: 'row', count: 3, pitch: 0.4, turn: 90 })],
      parts: NO_PARTS,
    });
    for (const y of [-0.4, 0, 0.4]) expect(at(s, 0, y).z).toBeCloseTo(0.1, 6);
    expect(at(s, 0.4, 0).z).toBe(0);
    const t = flat(128);
    makeEdit(t, {
      kind: 'bake',
      setForms: [setForm({ size: 0.05, repeat: 'ring', count: 4, pitch: 0.5 })],
      parts: NO_PARTS,
    });
    for (const [x, y] of [
      [0.5, 0],
      [0, 0.5],
      [-0.5, 0],
      [0, -0.5],
    ] as const)
      expect(at(t, x, y).z).toBeCloseTo(0.1, 6);
  });

  test('a raised set form stands on the mean height under it and never lowers the clay', () => {
    const s = bumpy();
    const before = places(s);
    makeEdit(s, { kind: 'bake', setForms: [setForm({ x: 0.2, y: 0.1 })], parts: NO_PARTS });
    expect(places(s).every((z, i) => i % 3 !== 2 || z >= before[i])).toBe(true);
    undo(s);
    expect(places(s)).toEqual(before);
  });
});

test('random edits: no NaN, undo is exact', () => {
  const random = seeded(21);
  const s = bumpy();
  const state = (mesh: Mesh): Float32Array[] => [mesh.positions.slice(), mesh.mask.slice(), mesh.normals.slice()];
  const begin = state(s.surface.mesh);
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  for (let i = 0; i < 40; i++) {
    makeEdit(
      s,
      any<Edit>([
        {
          kind: 'mask-shape',
          shape: {
            kind: any(['rectangle', 'ellipse'] as const),
            x: random() - 0.5,
            y: random() - 0.5,
            turnRad: random() * 3,
            halfWidth: random() * 0.5,
            halfHeight: random() * 0.5,
          },
          mode: any(['add', 'subtract'] as const),
          symmetry: { ...NO_SYMMETRY, copies: 3 },
        },
        { kind: 'mask-soften', steps: 2 },
        { kind: 'mask-grow', steps: Math.floor(random() * 6) - 3 },
        { kind: 'mask-invert' },
        {
          kind: 'by-number',
          change: any(['inflate', 'lift', 'noise', 'smooth', 'flatten', 'terrace'] as const),
          numbers: numbers({
            inflate: random() * 0.2 - 0.1,
            lift: 0.05,
            noise: 0.04,
            smooth: 2,
            flatten: 30,
            terrace: 0.04,
          }),
        },
        {
          kind: 'bake',
          setForms: [
            SetFormSchema.parse({
              id: '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e',
              form: any(['hex', 'dome', 'wedge'] as const),
              x: random() - 0.5,
              y: random() - 0.5,
              set: any(['raised', 'sunk'] as const),
            }),
          ],
          parts: NO_PARTS,
        },
      ]),
    );
    expect(s.surface.mesh.positions.some((x) => x - x !== 0)).toBe(false);
  }
  while (undo(s));
  state(s.surface.mesh).forEach((values, k) => expect(values.every((x, i) => x === begin[k][i])).toBe(true));
});
