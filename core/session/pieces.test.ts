import { newBrush, BrushSchema, PartSeatSchema, SymmetrySchema, type Brush } from '#core/settings';
import { resolveBrush, type PartForm, type ResolvedBrush } from '#core/brush';
import { body, buildMesh, nearest } from '#core/mesh';
import { block, seatAlong, seatFields, volumeOf } from '#core/part';

import { seeded } from '#core/random';
import { pieceMesh, type Piece } from '#core/scene';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY, pathSamples, type PathNode, type Sample } from '#core/stroke';
import { cross, dot, length, unit } from '#core/vector';
import {
  beginStroke,
  changePieces,
  clearStrokes,
  endStroke,
  extendStroke,
  redo,
  replay,
  retrace,
  session,
  undo,
  type Session,
} from './index';

const PEG = block([1, 1, 2], [0, 0, 1]);
const PLATE = block([2, 1, 0.25], [0, 0, 0.125]);
const IDS = ['11111111-0000-4000-8000-000000000001', '11111111-0000-4000-8000-000000000002'] as const;

function form(n: 0 | 1, seat: Partial<PartForm['head']['seat']> = {}): PartForm {
  const mesh = n === 0 ? PEG : PLATE;
  const seated = PartSeatSchema.parse({ ...seatFields(seatAlong(mesh, [0, 0, 1], [0, 1, 0])), ...seat });
  return { head: { id: IDS[n], mesh: `${n}`.repeat(64), seat: seated, card: { name: n ? 'Plate' : 'Peg' } }, mesh };
}

function inserting(change: (brush: Brush) => void = () => undefined, forms = [form(0), form(1)]): ResolvedBrush {
  const brush = BrushSchema.parse({
    ...newBrush('22222222-0000-4000-8000-000000000001', 'Pegs'),
    touch: { action: 'insert', footing: 20 },
    stroke: { type: 'trail', size: 0.1, spacing: 120 },
    parts: { entries: IDS.map((partId) => ({ partId })) },
  });
  change(brush);
  return resolveBrush(brush, null, null, (id) => forms.find(({ head }) => head.id === id) ?? null);
}

const open = (): Session => session(surface(buildMesh(body('ball', 40))), { replay: true });
const down = (x: number, y: number): Sample => ({ origin: [x, y, 4], direction: [0, 0, -1], pressure: 1, time: 0 });
const VIEW = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] } as const;

function stroke(s: Session, brush: ResolvedBrush, samples: Sample[], more: object = {}): void {
  beginStroke(s, { brush, seed: 7, dig: false, symmetry: NO_SYMMETRY, view: VIEW, ...more });
  extendStroke(s, samples);
  endStroke(s);
}
const row = Array.from({ length: 30 }, (_, i) => down(-0.5 + i / 29, 0.1));
const places = (s: Session): Piece[] => s.pieces.list();

test('a press sets one piece down: on the surface, upright on it, as wide as the dab', () => {
  const s = open();
  stroke(
    s,
    inserting((b) => (b.stroke.type = 'press')),
    [down(0.3, 0.2)],
  );
  const [piece] = places(s);
  expect(places(s)).toHaveLength(1);
  expect(length(piece!.at.origin)).toBeCloseTo(1, 2);
  expect(dot(unit(piece!.at.up), unit(piece!.at.origin))).toBeGreaterThan(0.995);
  const mesh = pieceMesh(piece!, PEG);
  // A peg as high as it is two wide; a dab of radius 0.1 is 0.2 wide.
  expect(volumeOf(mesh)).toBeCloseTo(0.2 * 0.2 * 0.4, 5);
  // The clay is as it was.
  expect(s.done[0]!.before!.map(({ kind }) => kind)).toEqual(['pieces']);
});

test('a drag from the centre sets size and turn', () => {
  const s = open();
  stroke(
    s,
    inserting((b) => (b.stroke.type = 'grow')),
    [down(0, 0), down(0.1, 0.1), down(0.2, 0.2)],
  );
  const [{ at }] = places(s) as [Piece];
  expect(places(s)).toHaveLength(1);
  expect(length(at.across)).toBeCloseTo(length(at.forward), 6);
  expect(unit(at.across)[0]).toBeCloseTo(Math.SQRT1_2, 1);
  expect(length(at.across) / Math.hypot(0.2, 0.2)).toBeCloseTo(2, 1);
});

test('a row follows the part’s width, in sequence, by chance, or one alone', () => {
  const s = open();
  stroke(s, inserting(), row);
  const names = places(s).map(({ name }) => name);
  expect(names.length).toBeGreaterThan(3);
  names.forEach((name, i) => expect(name).toBe(i % 2 ? 'Plate' : 'Peg'));
  clearStrokes(s);
  stroke(
    s,
    inserting((b) => Object.assign(b.parts, { order: 'chosen', chosen: 1 })),
    row,
  );
  expect(new Set(places(s).map(({ name }) => name))).toEqual(new Set(['Plate']));
  clearStrokes(s);
  const rare = inserting((b) => {
    b.parts.order = 'random';
    b.parts.entries[1]!.chance = 0;
  });
  stroke(s, rare, row);
  expect(new Set(places(s).map(({ name }) => name))).toEqual(new Set(['Peg']));
});

test('a path’s ends and corners take the parts that are said for them', () => {
  const s = open();
  const brush = inserting((b) => {
    Object.assign(b.stroke, { type: 'path', toEnds: true, spacing: 60 });
    Object.assign(b.parts, { order: 'chosen', chosen: 0, ends: 1, corners: 1 });
  });
  const node = (x: number, y: number, corner = false): PathNode => {
    const z = Math.sqrt(1 - x * x - y * y);
    return { point: [x, y, z], normal: [x, y, z], corner };
  };
  beginStroke(s, { brush, seed: 7, dig: false, symmetry: NO_SYMMETRY, view: VIEW });
  retrace(s, pathSamples([node(-0.4, 0), node(0.1, 0, true), node(0.1, 0.4)], false));
  endStroke(s);
  const names = places(s).map(({ name }) => name);
  expect(names.at(0)).toBe('Plate');
  expect(names.at(-1)).toBe('Plate');
  expect(names.filter((name) => name === 'Plate')).toHaveLength(3);
  expect(names.length).toBeGreaterThan(5);
});

test('under symmetry each piece has its mirrored copy, with its faces outward', () => {
  const s = open();
  const symmetry = SymmetrySchema.parse({ mirrorX: true, copies: 1 });
  stroke(
    s,
    inserting((b) => (b.stroke.type = 'press')),
    [down(0.3, 0.2)],
    { symmetry },
  );
  const [a, b] = places(s) as [Piece, Piece];
  expect(b.at.origin[0]).toBeCloseTo(-a.at.origin[0], 6);
  expect(dot(cross(b.at.across, b.at.forward), b.at.up)).toBeLessThan(0);
  expect(volumeOf(pieceMesh(b, PEG))).toBeCloseTo(volumeOf(pieceMesh(a, PEG)), 9);
});

test('on the mirror and on the axis one piece stands, not one on the other', () => {
  const s = open();
  const symmetry = SymmetrySchema.parse({ mirrorX: true, copies: 6, axis: 'z' });
  const brush = inserting((b) => (b.stroke.type = 'press'));
  stroke(s, brush, [down(0.001, 0.001)], { symmetry });
  expect(places(s)).toHaveLength(1);
  stroke(s, brush, [down(0.3, 0.2)], { symmetry, seed: 8 });
  expect(places(s)).toHaveLength(13);
});

test('dug, a piece stands on its head; its sink takes it under; a narrowed dab narrows it', () => {
  const s = open();
  const press = (b: Brush): void => void (b.stroke.type = 'press');
  stroke(s, inserting(press), [down(0, 0)], { dig: true });
  expect(places(s)[0]!.at.up[2]).toBeLessThan(0);
  clearStrokes(s);
  const sunk = inserting((b) => {
    press(b);
    b.parts.entries[0]!.sink = 50;
  });
  stroke(s, sunk, [down(0, 0)]);
  expect(places(s)[0]!.at.origin[2]).toBeCloseTo(1 - 0.2, 2);
});

test('a bent part lies on the ball with all of its base', () => {
  const s = open();
  const brush = inserting(
    (b) => {
      b.stroke.type = 'press';
      b.stroke.size = 0.3;
      b.parts.chosen = 1;
      b.parts.order = 'chosen';
    },
    [form(0), form(1, { base: 'bent' })],
  );
  stroke(s, brush, [down(0, 0)]);
  const [piece] = places(s) as [Piece];
  const mesh = pieceMesh(piece, PLATE);
  PLATE.positions.forEach((_, i) => {
    if (i % 3 !== 0 || PLATE.positions[i + 2]! > 1e-6) return;
    const [x, y, z] = mesh.positions.subarray(i, i + 3);
    expect(nearest(s.surface.mesh, x!, y!, z!)!.distance).toBeLessThan(0.004);
  });
});

test.each([1, 2, 3])(
  'strokes, moves and removals, undone and redone in any order, meet the states they left (seed %d)',
  (seed) => {
    const random = seeded(seed);
    const s = open();
    const stateOf = (): unknown => places(s).sort((a, b) => (a.id < b.id ? -1 : 1));
    const states = [stateOf()];
    let at = 0;
    for (let n = 0; n < 50; n++) {
      const what = random();
      let changed = false;
      if (what < 0.3) {
        expect(undo(s)).toBe(at > 0);
        if (at > 0) at--;
      } else if (what < 0.5) {
        expect(redo(s)).toBe(at < states.length - 1);
        if (at < states.length - 1) at++;
      } else if (what < 0.75 || s.pieces.count === 0) {
        stroke(
          s,
          inserting(),
          row.map((r) => down(r.origin[0] * random(), random() * 0.4)),
          { seed: n + seed * 1000 },
        );
        changed = true;
      } else {
        const piece = places(s)[Math.floor(random() * s.pieces.count)]!;
        const moved = { ...piece, at: { ...piece.at, origin: [random(), 0, 0] as const } };
        changed = changePieces(s, [[piece.id, random() < 0.4 ? null : moved]]);
      }
      if (changed) {
        states.length = ++at;
        states.push(stateOf());
      }
      expect(stateOf()).toEqual(states[at]);
    }
    while (undo(s));
    expect(places(s)).toEqual([]);
  },
);

test('run again with other settings the same pieces come, larger; a given-up stroke leaves none', () => {
  const s = open();
  stroke(s, inserting(), row);
  const before = places(s).map(({ id }) => id);
  const larger = inserting((b) => (b.parts.entries[0]!.scale = 200));
  replay(s, new Map([[larger.id, larger]]));
  expect(places(s).map(({ id }) => id)).toEqual(before);
  expect(length(places(s)[0]!.at.up)).toBeCloseTo(0.4, 2);
  beginStroke(s, { brush: inserting(), seed: 9, dig: false, symmetry: NO_SYMMETRY, view: VIEW });
  extendStroke(s, row);
  undo(s);
  expect(places(s)).toHaveLength(before.length);
});

test('a part that was picked by hand stays the stroke’s, whatever the set’s order becomes', () => {
  const s = open();
  const press = (b: Brush): void => void (b.stroke.type = 'press');
  stroke(s, inserting(press), [down(0.1, 0)], { part: 1 });
  stroke(s, inserting(press), [down(0.5, 0)], { seed: 9 });
  expect(places(s).map(({ name }) => name)).toEqual(['Plate', 'Peg']);
  const other = inserting((b) => {
    press(b);
    Object.assign(b.parts, { order: 'chosen', chosen: 0 });
  });
  replay(s, new Map([[other.id, other]]));
  expect(places(s).map(({ name }) => name)).toEqual(['Plate', 'Peg']);
});
