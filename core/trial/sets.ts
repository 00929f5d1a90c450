/**
 * Shipped test strokes: what a hand draws again and again to look at a brush, in the body's own space, seen from the
 * front unless the set says otherwise. They fit the shipped bodies, which lie within about 1 of the middle.
 */
import type { BodyName } from '#core/mesh';
import { NO_SYMMETRY, type Sample, type StrokeRecord, type View } from '#core/stroke';

/** A stroke of whichever brush is tried. */
export type TrialStroke = Omit<StrokeRecord, 'brush'>;

export interface TrialSet {
  name: string;
  label: string;
  help: string;
  /** The body that shows it; null for whichever is open. */
  body: BodyName | null;
  strokes: TrialStroke[];
}

type Point = readonly [x: number, y: number];

const FRONT: View = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] };
/** From above and the front, so that two sides of a plank are seen. */
const OVER: View = { right: [1, 0, 0], up: [0, 0.8, -0.6], toward: [0, 0.6, 0.8] };
const AWAY = 6;
/** Milliseconds between two samples of a calm hand. */
const CALM_MS = 16;

export function trialSets(): TrialSet[] {
  return [stamps(), curve(), spiral(), rowOfDrags(), pressureAndSpeed(), acrossAnEdge(), nearABorder(), handwriting()];
}

/** Every set's strokes begin with seeds of their own. */
function made(
  name: string,
  label: string,
  help: string,
  strokes: Omit<TrialStroke, 'seed' | 'dig' | 'symmetry'>[],
  body: BodyName | null = null,
): TrialSet {
  return {
    name,
    label,
    help,
    body,
    strokes: strokes.map((s, i) => ({ ...s, seed: i + 1, dig: false, symmetry: NO_SYMMETRY })),
  };
}

function stroke(
  points: readonly Point[],
  more: { view?: View; pressure?: (t: number) => number; time?: (t: number) => number; scale?: number } = {},
): Omit<TrialStroke, 'seed' | 'dig' | 'symmetry'> {
  const view = more.view ?? FRONT;
  const samples: Sample[] = points.map((point, i) => {
    const t = points.length > 1 ? i / (points.length - 1) : 0;
    return { ...seenAt(view, point), pressure: more.pressure?.(t) ?? 1, time: more.time?.(t) ?? i * CALM_MS };
  });
  return { view, samples, ...(more.scale === undefined ? {} : { scale: more.scale }) };
}

function seenAt({ right, up, toward }: View, [x, y]: Point): Pick<Sample, 'origin' | 'direction'> {
  const at = (k: 0 | 1 | 2): number => right[k] * x + up[k] * y + toward[k] * AWAY;
  return { origin: [at(0), at(1), at(2)], direction: [-toward[0], -toward[1], -toward[2]] };
}

/** `points` places along t from 0 to 1. */
function along(count: number, at: (t: number) => Point): Point[] {
  return Array.from({ length: count }, (_, i) => at(i / (count - 1)));
}

/** Each stamp is also a drag as long as its radius, for types that take their size or height from it. */
function stamps(): TrialSet {
  const places = [
    [-0.5, 0.25, 0.6],
    [0, 0.3, 1],
    [0.42, -0.15, 1.6],
  ] as const;
  return made(
    'stamps',
    'Stamps at three sizes',
    'One dab at 0.6, 1 and 1.6 times the size',
    places.map(([x, y, scale]) =>
      stroke(
        [
          [x, y],
          [x + 0.12 * scale, y + 0.12 * scale],
        ],
        { scale },
      ),
    ),
  );
}

function curve(): TrialSet {
  return made('curve', 'A long curve', 'One slow wave across the body', [
    stroke(along(90, (t) => [-0.72 + 1.44 * t, 0.38 * Math.sin(t * 2 * Math.PI)])),
  ]);
}

function spiral(): TrialSet {
  return made('spiral', 'A tight spiral', 'Three turns inwards, where dabs lie close to each other', [
    stroke(
      along(160, (t) => [
        0.55 * (1 - 0.86 * t) * Math.cos(t * 6 * Math.PI),
        0.55 * (1 - 0.86 * t) * Math.sin(t * 6 * Math.PI),
      ]),
    ),
  ]);
}

function rowOfDrags(): TrialSet {
  return made(
    'row',
    'A row of drags',
    'Five presses, each dragged a little further',
    Array.from({ length: 5 }, (_, i) => {
      const x = -0.6 + i * 0.28;
      return stroke([
        [x, 0.1],
        [x + 0.05 + i * 0.03, 0.18 + i * 0.03],
      ]);
    }),
  );
}

function pressureAndSpeed(): TrialSet {
  const line = (y: number): Point[] => along(70, (t) => [-0.7 + 1.4 * t, y]);
  return made('pressure', 'Pressure and speed', 'Light to firm to light; then slow, and faster and faster', [
    stroke(line(0.3), { pressure: (t) => Math.sin(Math.PI * t) }),
    // Places stay even while the time between them shrinks.
    stroke(line(-0.2), { time: (t) => 2400 * (1 - (1 - t) ** 0.35) * 0.5 + 200 * t }),
  ]);
}

function acrossAnEdge(): TrialSet {
  return made(
    'edge',
    'Across an edge',
    'Up a plank’s front and over onto its top, and one stamp on the edge itself',
    [
      stroke(
        along(60, (t) => [-0.45 + 0.1 * Math.sin(t * Math.PI), -0.35 + 0.75 * t]),
        { view: OVER },
      ),
      stroke(
        along(60, (t) => [0.1 + 0.3 * t, 0.35 - 0.7 * t]),
        { view: OVER },
      ),
      stroke([[0.65, 0.01]], { view: OVER }),
    ],
    'plank',
  );
}

function nearABorder(): TrialSet {
  return made(
    'border',
    'Near a border',
    'Along a tile’s side, and over its corner',
    [
      stroke(along(70, (t) => [0.86 + 0.1 * Math.sin(t * 3 * Math.PI), -0.75 + 1.5 * t])),
      stroke([[-0.9, 0.9]]),
      stroke([[-0.97, -0.4]]),
    ],
    'tile',
  );
}

/** Loops as of a joined hand, tall and short ones by turns, with a bar across and a dot. */
function handwriting(): TrialSet {
  const loops = along(220, (t) => {
    const turns = t * 7;
    const tall = Math.floor(turns + 0.25) % 3 === 1 ? 1 : 0.45;
    const angle = turns * 2 * Math.PI;
    return [-0.66 + 1.3 * t + 0.07 * Math.sin(angle), -0.05 + 0.26 * tall * (0.5 - 0.5 * Math.cos(angle)) - 0.06 * t];
  });
  return made('writing', 'Handwriting', 'Joined loops, a bar and a dot, pressed down on the way down', [
    stroke(loops, { pressure: (t) => 0.55 + 0.45 * Math.sin(t * 14 * Math.PI) }),
    stroke(along(18, (t) => [-0.45 + 0.3 * t, 0.26 + 0.03 * t])),
    stroke([[0.5, 0.25]]),
  ]);
}
