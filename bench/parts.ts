/** simplify_s_per_million, insert_ms, insert_growth, pick_piece_us, pieces_mb and union_s: parts and pieces. */
import Module from 'manifold-3d';
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import { resolveBrush, type PartForm, type ResolvedBrush } from '#core/brush';
import { ball, body, buildMesh, type RawMesh } from '#core/mesh';
import { reduced, seatAlong, seatFields, stood } from '#core/part';
import { merged, pieceMesh, piecePicker, solidOf, type Piece } from '#core/scene';
import { beginStroke, endStroke, extendStroke, session, type Session } from '#core/session';
import { BrushSchema, newBrush, PartSeatSchema } from '#core/settings';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY, type Sample } from '#core/stroke';
import { median, timeAsync, type Figure } from './measure';

const ID = '00000000-0000-4000-8000-000000000070';
const FACES = 500;
/** 1.05 million triangles. */
const DENSE = 296;

async function partForm(): Promise<PartForm> {
  const mesh = await reduced(body('stone', 40), { way: 'shape', faces: FACES });
  const seat = PartSeatSchema.parse(seatFields(seatAlong(mesh, [0, 0, 1], [0, 1, 0])));
  return { head: { id: ID, mesh: '0'.repeat(64), seat, card: { name: 'Stone' } }, mesh };
}

function inserting(form: PartForm): ResolvedBrush {
  const brush = BrushSchema.parse({
    ...newBrush(ID, 'Stones'),
    touch: { action: 'insert' },
    stroke: { type: 'press', size: 0.03 },
    parts: { entries: [{ partId: ID }] },
  });
  return resolveBrush(brush, null, null, () => form);
}

/** Places spread over the ball by the golden angle, seen from outside. */
function sampleAt(n: number): Sample {
  const z = 1 - 2 * ((n * 0.618034) % 1);
  const r = Math.sqrt(1 - z * z);
  const turn = n * 2.399963;
  const direction = [r * Math.cos(turn), r * Math.sin(turn), z] as const;
  return {
    origin: [direction[0] * 4, direction[1] * 4, direction[2] * 4],
    direction: [-direction[0], -direction[1], -direction[2]],
    pressure: 1,
    time: 0,
  };
}

function setDown(s: Session, brush: ResolvedBrush, n: number): void {
  const view = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] } as const;
  beginStroke(s, { brush, seed: n, dig: false, symmetry: NO_SYMMETRY, view });
  extendStroke(s, [sampleAt(n)]);
  endStroke(s);
  s.pieces.drain();
}

/** Median milliseconds of a piece set down where there are about so many. */
function insertMs(s: Session, brush: ResolvedBrush, count: number): number {
  while (s.pieces.count < count) setDown(s, brush, s.pieces.count + 1);
  const taken: number[] = [];
  for (let n = 0; n < 40; n++) {
    const began = performance.now();
    setDown(s, brush, 100_000 + count * 50 + n);
    taken.push(performance.now() - began);
  }
  return median(taken);
}

async function unionFigures(pieces: readonly Piece[], form: PartForm) {
  const kit = await Module();
  kit.setup();
  const mesh = ball(DENSE);
  const seated = stood(form.mesh, { up: [0, 0, 1], forward: [0, 1, 0], rest: [0, 0, 0] });
  const named = pieces.map((piece) => ({ name: piece.name, mesh: pieceMesh(piece, seated) }));
  let told = 0;
  const seconds = (of: typeof named): number => {
    const began = performance.now();
    merged(kit, { name: 'Ball', mesh }, of, () => told++);
    return (performance.now() - began) / 1000;
  };
  const one = seconds(named.slice(0, 1));
  told = 0;
  return { one, all: seconds(named), told, faces: mesh.triangles.length / 3 };
}

export async function partFigures(): Promise<Figure[]> {
  const dense: RawMesh = body('stone', DENSE);
  const millions = dense.triangles.length / 3 / 1e6;
  await MeshoptSimplifier.ready;
  const library =
    (await timeAsync(3, 1, async () => {
      MeshoptSimplifier.simplify(dense.triangles, dense.positions, 3, FACES * 3, 1e9);
    })) /
    1000 /
    millions;
  const simplify =
    (await timeAsync(3, 1, async () => void (await reduced(dense, { way: 'shape', faces: FACES })))) / 1000 / millions;
  const even = (await timeAsync(3, 1, async () => void (await reduced(dense, { way: 'even', faces: FACES })))) / 1000;

  const form = await partForm();
  const brush = inserting(form);
  const s = session(surface(buildMesh(ball(150))), { replay: true });
  const few = insertMs(s, brush, 20);
  const some = insertMs(s, brush, 200);
  const many = insertMs(s, brush, 2000);

  const solid = solidOf(stood(form.mesh, { up: [0, 0, 1], forward: [0, 1, 0], rest: [0, 0, 0] }));
  const pieces: Piece[] = s.pieces.list();
  const pickAny = piecePicker(() => solid);
  const picks: number[] = [];
  for (let n = 0; n < 400; n++) {
    const ray = sampleAt(n + 7);
    const began = performance.now();
    pickAny(pieces, ray);
    picks.push((performance.now() - began) * 1000);
  }
  const union = await unionFigures(pieces.slice(0, 200), form);
  // A matrix, a colour and what is said of each; the part once, and its geometry with creased corners on the card.
  const perPiece = 64 + 12 + JSON.stringify(pieces[0]).length * 2;
  const once = form.mesh.positions.byteLength + form.mesh.triangles.byteLength + form.mesh.triangles.length * 24;
  const bytes = (2000 * perPiece + once) / 2 ** 20;
  return [
    {
      key: 'simplify_s_per_million',
      what: `${millions.toFixed(2)} M faces to ${FACES}, the shape kept; ${(simplify / library).toFixed(2)} × the library’s own call (≤ 1.2). Even faces of the same take ${even.toFixed(2)} s in all`,
      value: simplify,
      unit: 's',
      floor: { what: 'the library’s own call', value: library },
      target: { text: '≤ 2', met: simplify <= 2 && simplify / library <= 1.2 },
    },
    {
      key: 'insert_ms',
      what: 'one piece of 500 faces set down by a press on a ball of 270 k faces with 200 others: the stroke, its step of history, what is told',
      value: some,
      unit: 'ms',
      floor: { what: 'with 20 others', value: few },
      target: { text: '≤ 16', met: some <= 16 },
    },
    {
      key: 'insert_growth',
      what: 'the same with 2000 others, over that with 20',
      value: many / few,
      unit: '×',
      floor: { what: 'no growth', value: 1 },
      target: { text: '≤ 1.5', met: many / few <= 1.5 },
    },
    {
      key: 'pick_piece_us',
      what: 'a ray to the first of 2000 pieces of 500 faces',
      value: median(picks),
      unit: 'µs',
      floor: { what: 'the quickest of them', value: Math.min(...picks) },
      target: { text: '≤ 300', met: median(picks) <= 300 },
    },
    {
      key: 'pieces_mb',
      what: 'memory of 2000 instances of one part, by its arrays: places and colours, what is said of each, the part once',
      value: bytes,
      unit: 'MB',
      floor: { what: 'the part alone', value: once / 2 ** 20 },
      target: { text: '≤ 40', met: bytes <= 40 },
    },
    {
      key: 'union_s',
      what: `200 pieces of 500 faces merged into a ball of ${(union.faces / 1e6).toFixed(2)} M faces, told ${union.told} times how far it is`,
      value: union.all,
      unit: 's',
      floor: { what: 'one piece into the same', value: union.one },
      target: { text: '≤ 2 × one piece', met: union.all <= 2 * union.one },
    },
  ];
}
