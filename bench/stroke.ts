/** stroke_p95_ms, undo_ms and the cost of every action, on 2 M vertices. */
import { resolveBrush } from '#core/brush';
import { buildMesh, plane, type Mesh } from '#core/mesh';
import { newPicture, pyramid } from '#core/picture';
import { ACTIONS, MAPPINGS, newBrush, type Action, type Mapping } from '#core/settings';
import { beginStroke, endStroke, extendStroke, session, undo, type Session } from '#core/session';
import { drainChanged, surface } from '#core/sculpt';
import { NO_SYMMETRY, stencilRows } from '#core/stroke';
import { median, time, type Figure } from './measure';

const CELLS = 1448;
const DABS = 200;
const TOUCHED = 20_000;

export function strokeFigures(): Figure[] {
  const mesh = buildMesh(plane(CELLS, 2));
  const s = session(surface(mesh), { replay: false });
  const radius = Math.sqrt((TOUCHED * 4) / (Math.PI * mesh.vertexCount));
  const perDab: number[] = [];
  const undos: number[] = [];
  let bytes = 0;
  for (let run = 0; run < 3; run++) {
    begin(s, 'lift', radius);
    let dabs = 0;
    for (let i = 0; dabs < DABS; i++) {
      // A spiral inside the border.
      const angle = i * 0.05;
      const away = 0.2 + (0.5 * i) / DABS;
      const began = performance.now();
      extendStroke(s, [{ origin: [Math.cos(angle) * away, Math.sin(angle) * away, 3], direction: [0, 0, -1] }]);
      // What the page needs to draw it: the list of leaves whose buffers changed.
      drainChanged(s.surface);
      const now = s.running!.runner.frames.length;
      if (run > 0) for (let k = dabs; k < now; k++) perDab.push((performance.now() - began) / (now - dabs));
      dabs = now;
    }
    endStroke(s);
    bytes = s.undoBytes;
    const began = performance.now();
    undo(s);
    undos.push(performance.now() - began);
  }
  const sorted = [...perDab].sort((a, b) => a - b);
  const p95 = sorted[Math.floor(sorted.length * 0.95)];
  const undoMs = median(undos.slice(1));
  const copy = time(5, 2, () => new Uint8Array(bytes).fill(1));

  const actions = Object.fromEntries(ACTIONS.map((action) => [action, actionCost(s, mesh, action)])) as Record<
    Action,
    number
  >;
  const costly = Math.max(...Object.values(actions)) / actions.lift;
  const worst = ACTIONS.find((a) => actions[a] === Math.max(...Object.values(actions)))!;
  const mappings = Object.fromEntries(
    MAPPINGS.map((mapping) => [mapping, actionCost(s, mesh, 'lift', mapping)]),
  ) as Record<Mapping, number>;
  const costlyMapping = MAPPINGS.reduce((a, b) => (mappings[a] > mappings[b] ? a : b));
  return [
    {
      key: 'mapping_over_surface',
      what: `the costliest mapping of Lift (${costlyMapping}) over On surface, a touched vertex: ${MAPPINGS.map((m) => `${m} ${mappings[m].toFixed(0)}`).join(', ')} ns`,
      value: mappings[costlyMapping] / mappings.surface,
      unit: '×',
      floor: { what: 'On surface itself', value: 1 },
      target: { text: '≤ 2', met: mappings[costlyMapping] / mappings.surface <= 2 },
    },
    {
      key: 'stroke_p95_ms',
      what: `each of ${DABS} dabs of ~${TOUCHED / 1000} k touched of 2 M at 10 % spacing, input to buffers ready`,
      value: p95,
      unit: 'ms',
      floor: { what: 'the median dab of the same strokes', value: median(perDab) },
      target: { text: '≤ 8', met: p95 <= 8 },
    },
    {
      key: 'undo_ms',
      what: 'undo of that stroke',
      value: undoMs,
      unit: 'ms',
      floor: { what: 'writing as many bytes', value: copy },
      target: { text: '≤ 60', met: undoMs <= 60 },
    },
    {
      key: 'action_over_lift',
      what: `the costliest action (${worst}) over Lift, a touched vertex: ${ACTIONS.map((a) => `${a} ${actions[a].toFixed(0)}`).join(', ')} ns`,
      value: costly,
      unit: '×',
      floor: { what: 'Lift itself', value: 1 },
      target: { text: '≤ 2', met: costly <= 2 },
    },
  ];
}

function begin(s: Session, action: Action, radius: number, mapping: Mapping = 'surface'): void {
  const picture = newPicture(512);
  for (let i = 0; i < picture.data.length; i++)
    picture.data[i] = 0.5 + 0.5 * Math.sin((i % 512) / 9) * Math.sin(i / 512 / 13);
  const brush = newBrush('b0000000-0000-4000-8000-0000000000fd', 'Bench');
  brush.touch.action = action;
  brush.stroke.mapping = mapping;
  brush.form.tile = radius * 2;
  brush.touch.strength = 25;
  brush.touch.overlaps = 'add';
  brush.stroke.size = radius;
  // As the slab's own brushes have it.
  brush.stroke.spacing = 10;
  brush.form.depth = 5;
  beginStroke(s, {
    brush: resolveBrush(brush, { pyramid: pyramid(picture), relief: 0.1, vector: null }),
    seed: 1,
    dig: false,
    symmetry: NO_SYMMETRY,
    view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
    stencil: stencilRows({ x: [1, 0, 0, 0], y: [0, 1, 0, 0], w: [0, 0, -0.1, 1] }, 1, {
      x: 0,
      y: 0,
      half: 0.9,
      turnRad: 0.3,
    }),
  });
}

/** Nanoseconds a touched vertex of a short stroke. */
function actionCost(s: Session, mesh: Mesh, action: Action, mapping: Mapping = 'surface'): number {
  const radius = Math.sqrt((TOUCHED * 4) / (Math.PI * mesh.vertexCount));
  const costs: number[] = [];
  for (let run = 0; run < 5; run++) {
    begin(s, action, radius, mapping);
    const began = performance.now();
    extendStroke(
      s,
      Array.from({ length: 12 }, (_, i) => ({
        origin: [-0.3 + i * 0.05, run * 0.1 - 0.2, 3] as const,
        direction: [0, 0, -1] as const,
      })),
    );
    const { touched } = endStroke(s);
    // A Move is laid again with every sample, so each of them counts.
    costs.push(((performance.now() - began) * 1e6) / (action === 'move' ? touched * 11 : touched));
    undo(s);
  }
  return median(costs.slice(1));
}
