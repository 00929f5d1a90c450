/** The demo's parts: eight fittings of the wharf, each from a mesh of many faces to its budget, seated and sized. */
import { packMesh } from '#core/formats';
import type { RawMesh } from '#core/mesh';
import { deviation, reduced, seatAlong, seatFields } from '#core/part';
import {
  BrushSchema,
  BRUSH_VERSION,
  BudgetSchema,
  PartSchema,
  PART_VERSION,
  type Brush,
  type Budget,
  type Part,
} from '#core/settings';
import { cleat, corkFloat, mussel, trenail } from './fittings';

export interface DemoPart {
  doc: Part;
  /** Its whole and its mesh. */
  bytes: Uint8Array[];
}

const CENTIMETRE = 10;

export async function fittings(
  id: (n: number) => string,
  author: string,
  hash: (bytes: Uint8Array) => string,
): Promise<DemoPart[]> {
  const made: [name: string, mesh: RawMesh, budget: Partial<Budget>, base: Part['seat']['base']][] = [
    ['Trenail', trenail(1), { faces: 220 }, 'flat'],
    ['Trenail, struck', trenail(5), { faces: 220 }, 'flat'],
    ['Cleat', cleat(), { faces: 600, way: 'even' }, 'flat'],
    ['Cork float', corkFloat(), { faces: 500 }, 'flat'],
    ['Mussel, small', mussel(2), { faces: 420 }, 'bent'],
    ['Mussel, plump', mussel(7), { faces: 420 }, 'bent'],
    ['Mussel, long', mussel(11), { faces: 420 }, 'bent'],
    ['Mussel, bowed', mussel(23), { faces: 420 }, 'bent'],
  ];
  const out: DemoPart[] = [];
  for (const [i, [name, whole, wanted, base]] of made.entries()) {
    const budget = BudgetSchema.parse(wanted);
    const mesh = await reduced(whole, budget);
    const [wholeBytes, meshBytes] = [whole, mesh].map((one) => new Uint8Array(packMesh(one))) as [
      Uint8Array,
      Uint8Array,
    ];
    const doc = PartSchema.parse({
      version: PART_VERSION,
      id: id(i + 1),
      card: { name, author, tags: ['wharf'] },
      made: { from: 'file' },
      whole: hash(wholeBytes),
      wholeTriangles: whole.triangles.length / 3,
      budget,
      mesh: hash(meshBytes),
      triangles: mesh.triangles.length / 3,
      error: deviation(whole, mesh),
      seat: { ...seatFields(seatAlong(mesh, [0, 0, 1], [0, 1, 0])), base, sink: base === 'bent' ? 8 : 4 },
      millimetres: CENTIMETRE,
    });
    out.push({ doc, bytes: [wholeBytes, meshBytes] });
  }
  return out;
}

/** One that sets all of them down by chance, and a row of trenails alone. */
export function fittingBrushes(parts: readonly DemoPart[], id: (n: number) => string, author: string): Brush[] {
  const entries = parts.map(({ doc }) => ({
    partId: doc.id,
    chance: doc.card.name.startsWith('Mussel') ? 100 : 35,
    scale: doc.card.name.startsWith('Trenail') ? 45 : 100,
  }));
  const head = { version: BRUSH_VERSION } as const;
  return [
    BrushSchema.parse({
      ...head,
      id: id(1),
      card: { name: 'Wharf fittings', author, tags: ['wharf', 'parts'] },
      touch: { action: 'insert', footing: 60 },
      stroke: { type: 'grow', size: 0.16 },
      parts: { entries, order: 'random' },
    }),
    BrushSchema.parse({
      ...head,
      id: id(2),
      card: { name: 'Trenail row', author, tags: ['wharf', 'parts'] },
      touch: { action: 'insert', footing: 60 },
      stroke: { type: 'trail', size: 0.06, spacing: 260 },
      drift: { turn: 24, size: 8 },
      parts: { entries: [{ partId: parts[0]!.doc.id }], order: 'sequence' },
    }),
  ];
}
