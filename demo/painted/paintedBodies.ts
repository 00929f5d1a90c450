/** The buoy, the crate plank and the harbour stone, painted a little with the wharf’s own brushes. */
import { resolveBrush, type AlphaForm } from '#core/brush';
import { packMesh, packSquare } from '#core/formats';
import { BODY_LABELS, buildMesh, paintableBody, type BodyName } from '#core/mesh';
import { filledLayer, headOf, squaresOf, newLayer, type Layer, type Tiles } from '#core/paint';
import { linearOf, srgbOfHex } from '#core/colour';
import { seeded } from '#core/random';
import { surface } from '#core/sculpt';
import {
  beginStroke,
  bringPainting,
  changeLayers,
  endStroke,
  extendStroke,
  session,
  type Session,
} from '#core/session';
import { BODY_VERSION, OwnBodySchema, type Brush, type OwnBody } from '#core/settings';
import { NO_SYMMETRY, type Sample } from '#core/stroke';
import { WHARF } from './paintBrushes';

const DENSITY = 64;
const SIZE = 1024;
const VIEW = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] } as const;

export interface PaintedMachine {
  hash: (bytes: Uint8Array) => string;
  gzip: (bytes: Uint8Array) => Uint8Array;
  /** What an alpha is stamped as, by its id. */
  formOf: (alphaId: string | null) => AlphaForm | null;
}

interface Hand {
  s: Session;
  draw: (name: string, samples: Sample[], change?: Partial<Brush['colour']>, size?: number) => void;
}

const from = (x: number, y: number, z: number): Sample => {
  const far = Math.hypot(x, y, z);
  return { origin: [x * 5, y * 5, z * 5], direction: [-x / far, -y / far, -z / far], pressure: 1, time: 0 };
};
/** Once round the body at a height, seen from its axis. */
const round = (y: number, turns = 1): Sample[] =>
  Array.from({ length: Math.round(72 * turns) + 1 }, (_, i) => {
    const a = (i / 72) * 2 * Math.PI;
    return {
      origin: [Math.sin(a) * 5, y, Math.cos(a) * 5],
      direction: [-Math.sin(a), 0, -Math.cos(a)],
      pressure: 1,
      time: 0,
    };
  });
const along = (fromX: number, toX: number, y: number, z = 4): Sample[] =>
  Array.from({ length: 30 }, (_, i) => ({
    origin: [fromX + ((toX - fromX) * i) / 29, y + 0.02 * Math.sin(i), z],
    direction: [0, 0, -1],
    pressure: 1,
    time: 0,
  }));

function buoy({ draw }: Hand): void {
  for (const y of [-0.62, -0.5, 0.36, 0.46]) draw('Hard paint', round(y), { first: WHARF.rust }, 0.12);
  draw('Hard paint', round(0.03), { first: WHARF.tar }, 0.1);
  for (const y of [-0.85, -0.95]) draw('Paint streak', round(y), {}, 0.16);
  const random = seeded(7);
  for (let n = 0; n < 7; n++) {
    const a = random() * 2 * Math.PI;
    const y = -0.6 + random() * 1.1;
    draw('Salt speckle', [from(Math.sin(a), y, Math.cos(a)), from(Math.sin(a + 0.5), y + 0.15, Math.cos(a + 0.5))]);
  }
  draw(
    'Rope-knot mark',
    [{ origin: [0, -0.28, 5], direction: [0, 0, -1], pressure: 1, time: 0 }],
    { first: WHARF.chalk },
    0.24,
  );
}

function plank({ draw }: Hand): void {
  for (const [y, first] of [
    [0.2, WHARF.tide],
    [0, WHARF.verdigris],
    [-0.2, WHARF.tide],
  ] as const)
    draw('Paint streak', along(-0.9, 0.9, y), { first, load: 0 }, 0.15);
  draw('Pigment mixer', along(-0.8, 0.4, 0.1), { first: WHARF.sand }, 0.12);
  draw('Grain smudge', along(-0.7, 0.7, 0.1), {}, 0.14);
  draw('Rope-knot mark', along(0.55, 0.55, 0).slice(0, 1), { first: WHARF.chalk }, 0.26);
  draw('Soft glaze', along(-0.95, 0.95, -0.32), {}, 0.14);
}

function stone({ draw }: Hand): void {
  for (const y of [-0.7, -0.55, -0.4]) draw('Paint streak', round(y), { first: WHARF.weed, load: 0 }, 0.2);
  for (const y of [0.5, 0.7]) draw('Soft glaze', round(y), { first: WHARF.chalk, flow: 22 }, 0.3);
  const random = seeded(19);
  for (let n = 0; n < 12; n++) {
    const a = random() * 2 * Math.PI;
    draw('Barnacle bloom', [
      from(Math.sin(a), -0.25 + random() * 0.3, Math.cos(a)),
      from(Math.sin(a + 0.25), -0.2 + random() * 0.3, Math.cos(a + 0.25)),
    ]);
  }
}

const SCRIPTS: { name: BodyName; ground: string; script: (hand: Hand) => void }[] = [
  { name: 'buoy', ground: WHARF.sand, script: buoy },
  { name: 'plank', ground: WHARF.stone, script: plank },
  { name: 'stone', ground: WHARF.stone, script: stone },
];

export function paintedBodies(
  idOf: (n: number) => string,
  author: string,
  brushes: readonly Brush[],
  machine: PaintedMachine,
): { doc: OwnBody; bytes: Uint8Array[] }[] {
  return SCRIPTS.map(({ name, ground, script }, i) => {
    const mesh = buildMesh(paintableBody(name, DENSITY));
    const s = session(surface(mesh), { replay: false, undoLimit: 0 });
    bringPainting(s, SIZE, [
      { ...filledLayer('ground', SIZE, linearOf(srgbOfHex(ground)!)), name: 'Middle tone' },
      newLayer('paint', 'Paint'),
    ]);
    let seed = 0;
    const draw: Hand['draw'] = (brushName, samples, change = {}, size) => {
      const brush = brushes.find(({ card }) => card.name === brushName)!;
      const own = {
        ...brush,
        colour: { ...brush.colour, ...change },
        stroke: { ...brush.stroke, ...(size ? { size } : {}) },
      };
      beginStroke(s, {
        brush: resolveBrush(own, machine.formOf(brush.form.alphaId)),
        seed: ++seed,
        dig: false,
        symmetry: NO_SYMMETRY,
        view: VIEW,
        layer: { layer: 'paint', mask: false },
      });
      extendStroke(s, samples);
      endStroke(s);
    };
    script({ s, draw });
    if (name === 'stone') changeLayers(s, { kind: 'set', id: 'paint', to: { opacity: 0.9 } });
    return kept(s, idOf(i), `${BODY_LABELS[name]}, painted`, author, machine);
  });
}

function kept(s: Session, id: string, name: string, author: string, { hash, gzip }: PaintedMachine) {
  const { positions, triangles, carried } = s.surface.mesh;
  const mesh = new Uint8Array(packMesh({ positions, triangles, carried }));
  const bytes: Uint8Array[] = [mesh];
  const squares = (tiles: Tiles): { square: number; blob: string }[] =>
    [...squaresOf(tiles, SIZE)].map(([square, own]) => {
      const packed = gzip(new Uint8Array(packSquare(own)));
      bytes.push(packed);
      return { square, blob: hash(packed) };
    });
  const layers = s.painting!.layers.map((layer: Layer) => ({
    ...headOf(layer),
    opacity: Math.round(layer.opacity * 100),
    squares: squares(layer.tiles),
  }));
  const doc = OwnBodySchema.parse({
    version: BODY_VERSION,
    id,
    card: { name, author, tags: ['tidewrack'] },
    mesh: hash(mesh),
    triangles: triangles.length / 3,
    report: { merged: 0, dropped: 0, open: 0, components: 1 },
    painting: { size: SIZE, layers },
  });
  return { doc, bytes };
}
