/** A plank of a crate with a row of trenails and mussels that settled on it, as the brushes set them down. */
import { resolveBrush, type PartForm } from '#core/brush';
import { packMesh, readMesh } from '#core/formats';
import { body, buildMesh } from '#core/mesh';
import { seeded } from '#core/random';
import { snapshotOfPieces } from '#core/scene';
import { surface } from '#core/sculpt';
import { beginStroke, endStroke, extendStroke, session } from '#core/session';
import { BODY_VERSION, BrushSchema, OwnBodySchema, type Brush, type OwnBody } from '#core/settings';
import { NO_SYMMETRY, type Sample } from '#core/stroke';
import type { DemoPart } from './parts';

const DENSITY = 60;
const MUSSELS = 22;
const VIEW = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] } as const;
const down = (x: number, y: number): Sample => ({ origin: [x, y, 4], direction: [0, 0, -1], pressure: 1, time: 0 });

export interface DemoBody {
  doc: OwnBody;
  bytes: Uint8Array[];
}

export function musselPlank(
  id: string,
  author: string,
  parts: readonly DemoPart[],
  [fittings, row]: readonly Brush[],
  hash: (bytes: Uint8Array) => string,
): DemoBody {
  const raw = body('plank', DENSITY);
  const s = session(surface(buildMesh(raw)), { replay: false });
  const formOf = (partId: string): PartForm | null => {
    const part = parts.find(({ doc }) => doc.id === partId);
    return part ? { head: part.doc, mesh: readMesh(part.bytes[1]!.slice().buffer) } : null;
  };
  const draw = (brush: Brush, seed: number, samples: Sample[]): void => {
    const resolved = resolveBrush(brush, null, null, formOf);
    beginStroke(s, { brush: resolved, seed, dig: false, symmetry: NO_SYMMETRY, view: VIEW });
    extendStroke(s, samples);
    endStroke(s);
  };
  for (const y of [-0.26, 0.26])
    draw(
      row!,
      1,
      Array.from({ length: 40 }, (_, i) => down(-0.85 + (1.7 * i) / 39, y)),
    );
  const random = seeded(41);
  const mussels = fittings!.parts.entries.filter(({ partId }) =>
    parts.find(({ doc }) => doc.id === partId)!.doc.card.name.startsWith('Mussel'),
  );
  for (let n = 0; n < MUSSELS; n++) {
    // They settle near each other.
    const far = random() ** 1.6 * 0.55;
    const turn = random() * 2 * Math.PI;
    const brush = BrushSchema.parse({
      ...fittings,
      stroke: { type: 'press', size: 0.05 + random() * 0.035, turnFrom: 'random' },
      form: { turn: Math.round(random() * 360 - 180) },
      parts: { entries: mussels, order: 'random' },
    });
    draw(brush, 100 + n, [down(0.25 + far * 1.1 * Math.cos(turn), 0.32 * far * Math.sin(turn) * 1.2)]);
  }
  const kept = snapshotOfPieces(s.pieces.list());
  const mesh = new Uint8Array(packMesh(raw));
  const shapes = kept.shapes && new Uint8Array(kept.shapes.buffer);
  const doc = OwnBodySchema.parse({
    version: BODY_VERSION,
    id,
    card: { name: 'Plank with mussels', author, tags: ['wharf'] },
    mesh: hash(mesh),
    triangles: raw.triangles.length / 3,
    report: { merged: 0, dropped: 0, open: 0, components: 1 },
    pieces: kept.pieces,
    shapes: shapes && hash(shapes),
  });
  return { doc, bytes: [mesh, ...(shapes ? [shapes] : [])] };
}
