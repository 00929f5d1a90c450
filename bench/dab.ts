/** dab_ns_per_vertex, dab_growth_8x, pick_us, undo_ms, bytes_per_vertex. */
import { buildMesh, pick, plane, type Mesh } from '#core/mesh';
import { resolveBrush, type ResolvedBrush } from '#core/brush';
import { newPicture, pyramid, type Picture } from '#core/picture';
import { newBrush } from '#core/settings';
import { beginStroke, endStroke, extendStroke, session, undo, type Session } from '#core/session';
import { surface } from '#core/sculpt';
import { NO_SYMMETRY } from '#core/stroke';
import { median, time, type Figure } from './measure';
import { fansOf, plainDab } from './plainDab';

/** Dabs keep this far from the middle, inside the border. */
const SLAB_CORNER = 0.7;
const TOUCHED = 50_000;
const DABS = 40;
const WARM = 15;

export function dabFigures(): Figure[] {
  const picture = ripples(512);
  const middle = measure(1448, picture);
  const small = measure(1000, picture);
  const large = measure(2828, picture);
  const growth = large.nsPerVertex / small.nsPerVertex;
  return [
    {
      key: 'dab_ns_per_vertex',
      what: 'one Lift dab with alpha, falloff, normals and undo, ~50 k touched of 2 M',
      value: middle.nsPerVertex,
      unit: 'ns',
      floor: { what: 'the same in plain loops, told what to touch', value: middle.plainNs },
      target: {
        text: '≤ 150, and ≤ 1/3 of the plain loops',
        met: middle.nsPerVertex <= 150 && middle.nsPerVertex <= middle.plainNs / 3,
      },
    },
    {
      key: 'dab_growth_8x',
      what: 'the same touched count on 8 M vertices ÷ on 1 M',
      value: growth,
      unit: '×',
      floor: { what: 'plain loops on 8 M ÷ on 1 M', value: large.plainNs / small.plainNs },
      target: { text: '≤ 1.25', met: growth <= 1.25 },
    },
    {
      key: 'connected_over_all',
      what: 'the same dab taking only what hangs together ÷ taking everything',
      value: middle.connectedNs / middle.nsPerVertex,
      unit: '×',
      floor: { what: 'taking everything, ns a vertex', value: middle.nsPerVertex },
      target: { text: 'none set', met: true },
    },
    {
      key: 'pick_us',
      what: 'ray to surface point on 2 M',
      value: middle.pickUs,
      unit: 'µs',
      floor: { what: 'testing the triangles of one leaf', value: middle.leafUs },
      target: { text: '≤ 200', met: middle.pickUs <= 200 },
    },
    {
      key: 'bytes_per_vertex',
      what: 'sculpt memory, without undo',
      value: middle.bytes,
      unit: 'B',
      floor: { what: 'positions, normals and triangles alone', value: 48 },
      target: { text: '≤ 120', met: middle.bytes <= 120 },
    },
    undoFigure(picture),
  ];
}

const LONG_SESSION = 400;
const UNDO_LIMIT = 48 * 2 ** 20;

/** What undo holds at the most over a long session whose strokes would fill its budget many times. */
function undoFigure(picture: Picture): Figure {
  const s = session(surface(buildMesh(plane(700, 2))), { replay: false, undoLimit: UNDO_LIMIT });
  const brush = liftBrush(0.2, picture, 'all');
  let most = 0;
  let unbounded = 0;
  for (let i = 0; i < LONG_SESSION; i++) {
    const held = s.undoBytes;
    press(s, brush, Math.sin(i * 7.3) * SLAB_CORNER, Math.cos(i * 3.1) * SLAB_CORNER);
    unbounded += Math.max(0, s.undoBytes - held);
    most = Math.max(most, s.undoBytes);
  }
  return {
    key: 'undo_bytes',
    what: `what undo holds over ${LONG_SESSION} strokes ÷ its budget of ${UNDO_LIMIT >> 20} MB`,
    value: most / UNDO_LIMIT,
    unit: '×',
    floor: { what: 'what came in before the budget was full ÷ the budget', value: unbounded / UNDO_LIMIT },
    target: { text: '≤ 1', met: most <= UNDO_LIMIT && unbounded >= UNDO_LIMIT * 0.9 },
  };
}

interface Measured {
  nsPerVertex: number;
  /** The same, where only what hangs together is taken. */
  connectedNs: number;
  plainNs: number;
  pickUs: number;
  leafUs: number;
  bytes: number;
}

function measure(cells: number, picture: Picture): Measured {
  const mesh = buildMesh(plane(cells, 2));
  const s = session(surface(mesh), { replay: false });
  // What is taken before the first stroke; copies for undo come after.
  const workBytes = mesh.room.top;
  const fans = fansOf(mesh);
  const radius = Math.sqrt((TOUCHED * 4) / (Math.PI * mesh.vertexCount));
  const brush = liftBrush(radius, picture, 'all');
  const connected = liftBrush(radius, picture, 'connected');
  const at = (i: number): readonly [number, number] => [
    Math.sin(i * 7.3) * SLAB_CORNER,
    Math.cos(i * 3.1) * SLAB_CORNER,
  ];

  const perVertex: number[] = [];
  const joined: number[] = [];
  const plain: number[] = [];
  for (let i = 0; i < DABS + WARM; i++) {
    const [x, y] = at(i);
    const began = performance.now();
    const touched = press(s, brush, x, y);
    const ms = performance.now() - began;
    const list = s.surface.touched.slice(0, s.surface.touchedCount);
    undo(s);
    const joinedBegan = performance.now();
    press(s, connected, x, y);
    const joinedMs = performance.now() - joinedBegan;
    undo(s);
    const plainBegan = performance.now();
    plainDab(mesh, fans, list, { x, y, radius, scale: 1e-4, picture });
    const plainMs = performance.now() - plainBegan;
    if (i >= WARM) {
      perVertex.push((ms * 1e6) / touched);
      joined.push((joinedMs * 1e6) / touched);
      plain.push((plainMs * 1e6) / touched);
    }
  }
  const picks = 2000;
  const pickMs = time(5, 2, () => {
    for (let i = 0; i < picks; i++) {
      const [x, y] = at(i);
      pick(mesh, { origin: [x, y, 3], direction: [0.01, 0.02, -1] });
    }
  });
  return {
    nsPerVertex: median(perVertex),
    connectedNs: median(joined),
    plainNs: median(plain),
    pickUs: (pickMs * 1000) / picks,
    leafUs: leafFloor(mesh),
    bytes: workBytes / mesh.vertexCount,
  };
}

function press(s: Session, brush: ResolvedBrush, x: number, y: number): number {
  beginStroke(s, {
    brush,
    seed: 1,
    dig: false,
    symmetry: NO_SYMMETRY,
    view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
  });
  extendStroke(s, [{ origin: [x, y, 3], direction: [0, 0, -1] }]);
  return endStroke(s).touched;
}

function liftBrush(radius: number, picture: Picture, takes: 'all' | 'connected'): ResolvedBrush {
  const brush = newBrush('b0000000-0000-4000-8000-0000000000ff', 'Bench');
  brush.stroke.type = 'press';
  brush.stroke.size = radius;
  brush.form.depth = 5;
  brush.touch.overlaps = 'add';
  brush.touch.takes = takes;
  return resolveBrush(brush, { pyramid: pyramid(picture), relief: 0.1, vector: null });
}

function ripples(size: number): Picture {
  const picture = newPicture(size);
  for (let i = 0; i < picture.data.length; i++)
    picture.data[i] = 0.5 + 0.5 * Math.sin((i % size) / 9) * Math.sin(i / size / 13);
  return picture;
}

/** One leaf's triangles, tested for nothing but which side a point lies on. */
function leafFloor(mesh: Mesh): number {
  const { leafTriangles, triangles, positions: p } = mesh;
  let hits = 0;
  const ms = time(5, 2, () => {
    for (let leaf = 0; leaf < 1000; leaf++) {
      for (let t = leafTriangles[leaf] * 3; t < leafTriangles[leaf + 1] * 3; t += 3) {
        const a = triangles[t] * 3;
        const b = triangles[t + 1] * 3;
        const c = triangles[t + 2] * 3;
        if ((p[b] - p[a]) * (p[c + 1] - p[a + 1]) - (p[c] - p[a]) * (p[b + 1] - p[a + 1]) > 0) hits++;
      }
    }
  });
  if (hits === 0) throw new Error('The floor measured nothing.');
  return ms;
}
