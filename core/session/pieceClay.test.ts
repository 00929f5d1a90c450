import Module, { type ManifoldToplevel } from 'manifold-3d';
import { ball, buildMesh, type RawMesh } from '#core/mesh';
import { isClosed, stood, volumeOf } from '#core/part';
import { seeded } from '#core/random';
import { merged, pieceMesh, type Piece } from '#core/scene';
import { surface } from '#core/sculpt';
import type { StrokeStart } from '#core/stroke';
import { length } from '#core/vector';
import { bringPieces, canUndo, changePieces, clearStrokes, mergePieces, redo, replay, session, undo } from './index';
import type { Session } from './session';
import { stroke, testBrush } from './testKit';

const KNOB = ball(8);
const SEAT = { up: [0, 0, 1], forward: [0, 1, 0], rest: [0, 0, 0] } as const;
const meshes = new Map<string, RawMesh>([['knob', KNOB]]);

function knob(id: string, at: readonly [number, number, number], size = 0.3): Piece {
  return {
    id,
    partId: 'knob',
    mesh: 'knob',
    name: 'Knob',
    seat: SEAT,
    at: { origin: at, across: [size, 0, 0], forward: [0, size, 0], up: [0, 0, size] },
    shape: null,
    colour: null,
    hidden: false,
  };
}

/** A ball with a knob on its front, one beside it and one on its back. */
function open(undoLimit = 1e9): Session {
  const s = session(surface(buildMesh(ball(16))), { replay: true, undoLimit, meshes });
  bringPieces(s, [knob('front', [0, 0, 1.1]), knob('side', [0.55, 0, 0.9]), knob('back', [0, 0, -1.1])]);
  return s;
}

const lift = testBrush({ touch: { action: 'lift', strength: 60 }, stroke: { type: 'trail', size: 0.2 } });
const across: [number, number][] = [
  [-0.1, 0],
  [0, 0.02],
  [0.1, 0.02],
];
const on = (...ids: string[]): Partial<StrokeStart> => ({ on: ids });
/** Of all bits, in a word: what differs is told apart, and not printed. */
function sum(of: Float32Array): number {
  return new Uint32Array(of.buffer, of.byteOffset, of.length).reduce(
    (all, word) => Math.imul(all ^ word, 0x01000193),
    1,
  );
}
function places(s: Session): string {
  const pieces = s.pieces.list().map((piece) => JSON.stringify({ ...piece, shape: piece.shape && sum(piece.shape) }));
  return [...pieces.sort(), s.surface.mesh.vertexCount, sum(s.surface.mesh.positions)].join('\n');
}

test('a stroke on a piece gives it a shape of its own; the body and the others stay to the bit', () => {
  const s = open();
  const clay = sum(s.surface.mesh.positions);
  const [, side, back] = s.pieces.list();
  stroke(s, lift, across, on('front'));
  expect(sum(s.surface.mesh.positions)).toBe(clay);
  const front = s.pieces.get('front')!;
  expect(s.pieces.get('side')).toBe(side);
  expect(s.pieces.get('back')).toBe(back);
  const before = volumeOf(pieceMesh(knob('front', [0, 0, 1.1]), stood(KNOB, SEAT)));
  expect(volumeOf(pieceMesh(front, stood(KNOB, SEAT)))).toBeGreaterThan(before * 1.01);
  // What no dab touched is where it was, to the bit.
  const seated = stood(KNOB, SEAT).positions;
  const still = seated.filter((x, i) => x === front.shape![i]).length;
  expect(still).toBeGreaterThan(seated.length * 0.3);
  expect(s.done.map(({ before: b }) => b!.map(({ kind }) => kind))).toEqual([['pieces']]);
});

test('it is shown while it is drawn, and given up it leaves no trace', () => {
  const s = open();
  const before = places(s);
  s.pieces.drain();
  stroke(s, lift, across, on('front', 'side'));
  expect(s.pieces.drain().map(([id]) => id)).toEqual(['front']);
  undo(s);
  expect(places(s)).toEqual(before);
});

test('what the body hides isn’t met, and a stroke whose pieces are gone changes nothing', () => {
  const s = open();
  const before = places(s);
  expect(stroke(s, lift, across, on('back')).touched).toBe(0);
  expect(stroke(s, lift, across, on('nobody')).touched).toBe(0);
  expect(places(s)).toEqual(before);
  expect(s.done).toHaveLength(0);
});

test('run again with other settings the stroke goes on the same piece', () => {
  const s = open();
  stroke(s, lift, across, on('front'));
  const { shape } = s.pieces.get('front')!;
  const most = (of: Float32Array): number => Math.max(...of.filter((_, i) => i % 3 === 2));
  const more = testBrush({ touch: { action: 'lift', strength: 100 }, stroke: { type: 'trail', size: 0.2 } });
  replay(s, new Map([[more.id, more]]));
  expect(most(s.pieces.get('front')!.shape!)).toBeGreaterThan(most(shape!));
  replay(s, new Map([[lift.id, lift]]));
  expect(sum(s.pieces.get('front')!.shape!)).toBe(sum(shape!));
});

describe('merging', () => {
  let kit: ManifoldToplevel;
  beforeAll(async () => {
    kit = await Module();
    kit.setup();
  });

  function merge(s: Session, ...ids: string[]): void {
    const { positions, triangles } = s.surface.mesh;
    const pieces = ids.map((id) => ({ name: id, mesh: pieceMesh(s.pieces.get(id)!, stood(KNOB, SEAT)) }));
    mergePieces(s, ids, merged(kit, { name: 'Ball', mesh: { positions, triangles } }, pieces));
  }

  test('the pieces are part of one closed body, and strokes go on it', () => {
    const s = open();
    const ballAlone = volumeOf(s.surface.mesh);
    merge(s, 'front', 'side');
    expect(s.pieces.list().map(({ id }) => id)).toEqual(['back']);
    expect(isClosed(s.surface.mesh)).toBe(true);
    expect(volumeOf(s.surface.mesh)).toBeGreaterThan(ballAlone * 1.01);
    stroke(s, lift, across);
    let farthest = 0;
    for (let v = 0; v < s.surface.mesh.vertexCount; v++)
      farthest = Math.max(farthest, length([...s.surface.mesh.positions.subarray(v * 3, v * 3 + 3)] as never));
    expect(farthest).toBeGreaterThan(1.41);
  });

  test('strokes after it are run again, those before it aren’t; undo goes back past it', () => {
    const s = open();
    stroke(
      s,
      lift,
      across.map(([x, y]) => [x - 0.4, y]),
    );
    const stroked = places(s);
    merge(s, 'front');
    const whole = places(s);
    stroke(s, lift, across);
    const drawn = places(s);
    const none = testBrush({ touch: { action: 'lift', strength: 0 }, stroke: { type: 'trail', size: 0.2 } });
    replay(s, new Map([[none.id, none]]));
    expect(places(s)).toEqual(whole);
    replay(s, new Map([[lift.id, lift]]));
    expect(places(s)).toEqual(drawn);
    undo(s);
    undo(s);
    expect(places(s)).toEqual(stroked);
    redo(s);
    expect(places(s)).toEqual(whole);
    clearStrokes(s);
    expect(places(s)).toEqual(places(open()));
    expect(canUndo(s)).toBe(false);
  });

  test.each([1, 2, 3])(
    'strokes on the body and on pieces, moves and merges, undone and redone in any order (seed %d)',
    (seed) => {
      const random = seeded(seed);
      // Every second history forgets what stood before old steps.
      const s = open(seed === 2 ? 60_000 : 1e9);
      const states = [places(s)];
      let at = 0;
      for (let n = 0; n < 40; n++) {
        const what = random();
        const ids = s.pieces.list().map(({ id }) => id);
        if (what < 0.3) {
          const could = canUndo(s);
          if (seed !== 2) expect(could).toBe(at > 0);
          expect(undo(s)).toBe(could);
          if (could) at--;
        } else if (what < 0.45) {
          const could = at < states.length - 1;
          expect(redo(s)).toBe(could);
          if (could) at++;
        } else {
          const steps = s.done.length;
          const path = across.map(([x, y]): [number, number] => [x + random() * 0.5, y + random() * 0.2]);
          if (what < 0.6) stroke(s, lift, path);
          else if (what < 0.8) stroke(s, lift, path, on(...ids));
          else if (what < 0.9 && ids.length > 0) merge(s, ids[0]!);
          else {
            const spot = [random() - 0.5, random() - 0.5, 1] as const;
            changePieces(s, [[`new ${n}`, knob(`new ${n}`, spot, 0.1 + random() * 0.2)]]);
          }
          if (s.done.length > steps) {
            states.length = ++at;
            states.push(places(s));
          }
        }
        expect(places(s)).toEqual(states[at]);
      }
    },
  );
});
