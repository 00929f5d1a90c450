import { ball, type RawMesh } from '#core/mesh';
import { block, isClosed, stood, volumeOf } from '#core/part';
import { seeded } from '#core/random';
import { cross, dot, length, minus, plus, scaled, unit, type Vec3 } from '#core/vector';
import {
  intoPiece,
  snapshotOfPieces,
  piecePicker,
  placed,
  pieceMesh,
  Pieces,
  piecesFrom,
  solidOf,
  type Piece,
} from './index';

const SEAT = { up: [0, 0, 1], forward: [0, 1, 0], rest: [0, 0, 0] } as const;
const PART: RawMesh = block([1, 2, 3], [0, 0, 1.5]);
const SOLID = solidOf(stood(PART, SEAT));

function piece(n: number, random: () => number, change: Partial<Piece> = {}): Piece {
  const direction = (): Vec3 => unit([random() - 0.5, random() - 0.5, random() - 0.5]);
  const up = direction();
  const forward = unit(cross(up, direction()));
  const size = 0.05 + random() * 0.1;
  const at = {
    origin: scaled(direction(), 1 + random()),
    across: scaled(cross(forward, up), size * (random() < 0.3 ? -1 : 1)),
    forward: scaled(forward, size),
    up: scaled(up, size),
  };
  const id = `piece ${n}`;
  return {
    id,
    partId: id,
    mesh: 'a'.repeat(64),
    name: id,
    seat: SEAT,
    at,
    shape: null,
    colour: null,
    hidden: false,
    ...change,
  };
}

test('a piece is its part turned, sized and moved: closed, outward, of the volume that its size says', () => {
  const random = seeded(3);
  for (let n = 0; n < 40; n++) {
    const one = piece(n, random);
    const mesh = pieceMesh(one, PART);
    expect(isClosed(mesh)).toBe(true);
    expect(volumeOf(mesh)).toBeCloseTo(6 * length(one.at.up) ** 3, 6);
    const at: Vec3 = [random(), random(), random()];
    const back = intoPiece(one.at)!.place(placed(one.at, ...at));
    back.forEach((x, k) => expect(x).toBeCloseTo(at[k]!, 6));
  }
});

test('a ray meets the first piece, as trying every triangle of every piece says', () => {
  const random = seeded(8);
  const all = Array.from({ length: 60 }, (_, n) => piece(n, random));
  const pickAny = piecePicker(() => SOLID);
  let met = 0;
  for (let n = 0; n < 200; n++) {
    const origin = scaled(unit([random() - 0.5, random() - 0.5, random() - 0.5]), 6);
    const aim = all[Math.floor(random() * all.length)]!.at.origin;
    const direction = minus(plus(aim, scaled([random() - 0.5, random() - 0.5, random() - 0.5], 0.2)), origin);
    const found = pickAny(all, { origin, direction });
    const slow = all
      .map((one) => ({ one, distance: firstOf(pieceMesh(one, PART), origin, direction) }))
      .sort((a, b) => a.distance - b.distance)[0]!;
    if (slow.distance === Infinity) expect(found).toBeNull();
    else {
      met++;
      expect(found!.distance).toBeCloseTo(slow.distance, 4);
      expect(found!.piece.id).toBe(slow.one.id);
    }
  }
  expect(met).toBeGreaterThan(80);
});

/** Shares of the direction, over all triangles. */
function firstOf({ positions: p, triangles }: RawMesh, o: Vec3, d: Vec3): number {
  let best = Infinity;
  for (let t = 0; t < triangles.length; t += 3) {
    const corner = (k: number): Vec3 => [0, 1, 2].map((i) => p[triangles[t + k]! * 3 + i]!) as unknown as Vec3;
    const [a, b, c] = [corner(0), corner(1), corner(2)];
    const [u, v] = [minus(b, a), minus(c, a)];
    const q = cross(d, v);
    const det = dot(u, q);
    if (det === 0) continue;
    const s = minus(o, a);
    const x = dot(s, q) / det;
    const r = cross(s, u);
    const y = dot(d, r) / det;
    const at = dot(v, r) / det;
    if (x >= 0 && y >= 0 && x + y <= 1 && at >= 0) best = Math.min(best, at);
  }
  return best;
}

test('hidden pieces, and those whose mesh isn’t here, are passed through', () => {
  const one = piece(0, seeded(1), { at: { origin: [0, 0, 0], across: [1, 0, 0], forward: [0, 1, 0], up: [0, 0, 1] } });
  const ray = { origin: [0, 0, 9], direction: [0, 0, -1] } as const;
  expect(piecePicker(() => SOLID)([one], ray)!.distance).toBeCloseTo(6, 5);
  expect(piecePicker(() => SOLID)([{ ...one, hidden: true }], ray)).toBeNull();
  expect(piecePicker(() => null)([one], ray)).toBeNull();
});

test('pieces as a body keeps them come back the same, bent ones with their places', () => {
  const random = seeded(5);
  const all = Array.from({ length: 9 }, (_, n) =>
    piece(n, random, { shape: n % 2 ? Float32Array.from({ length: 6 + n }, () => random()) : null }),
  );
  const kept = snapshotOfPieces(all);
  expect(piecesFrom({ ...kept, pieces: JSON.parse(JSON.stringify(kept.pieces)) as typeof kept.pieces })).toEqual(all);
  expect(snapshotOfPieces(all.filter(({ shape }) => !shape)).shapes).toBeNull();
  expect(() => piecesFrom({ pieces: kept.pieces, shapes: kept.shapes!.slice(0, 8) })).toThrow('cut short');
  expect(() => piecesFrom({ pieces: kept.pieces, shapes: null })).toThrow('cut short');
});

test('what changed is told once, as it is then', () => {
  const random = seeded(2);
  const [a, b] = [piece(1, random), piece(2, random)];
  const pieces = new Pieces();
  const back = pieces.make([
    [a.id, a],
    [b.id, b],
  ]);
  pieces.make([[a.id, null]]);
  expect(pieces.drain()).toEqual([
    [a.id, null],
    [b.id, b],
  ]);
  expect(pieces.drain()).toEqual([]);
  pieces.make([[a.id, a]]);
  pieces.make(back);
  expect(pieces.count).toBe(0);
  expect(solidOf(ball(4)).radius).toBeCloseTo(1, 1);
});
