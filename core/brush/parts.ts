/** The parts of a brush in the engine's units, ready to be set down. */
import type { RawMesh } from '#core/mesh';
import { seatOf, seatedExtents, stood, type Seat } from '#core/part';
import type { Part, PartBase, PartOrder, PartSet } from '#core/settings';

/** A part as it was sent: where it lies among those that are kept, and its mesh. */
export interface PartForm {
  head: Pick<Part, 'id' | 'mesh' | 'seat'> & { card: { name: string } };
  mesh: RawMesh;
}

export interface ResolvedPart {
  /** Its place in the set. */
  entry: number;
  partId: string;
  /** Name of the mesh among what is stored. */
  mesh: string;
  name: string;
  seat: Seat;
  /** On its seat: across, forward and up are x, y and z, its rest point the origin. */
  stood: RawMesh;
  /** Makes its wider side on the surface 2 long, so that it fills a dab of radius 1; its own scales are in it. */
  unit: number;
  /** How far it is sunk, in its mesh's units. */
  sunk: number;
  turnRad: number;
  base: PartBase;
  /** Share of the chances; 0 never comes at random. */
  chance: number;
}

export interface ResolvedParts {
  parts: readonly ResolvedPart[];
  order: PartOrder;
  /** Which of `parts` is set down where they are chosen by hand. */
  chosen: number;
  /** Which of them stands at the ends of a path, and at its corners; null leaves them to the order. */
  ends: number | null;
  corners: number | null;
}

/** Those of the set that are there; null where it has none. */
export function resolveParts(set: PartSet, formOf: (partId: string) => PartForm | null): ResolvedParts | null {
  const found = set.entries.map((entry, at) => ({ at, entry, form: formOf(entry.partId) }));
  const there = found.filter((one): one is (typeof found)[number] & { form: PartForm } => one.form !== null);
  if (there.length === 0) return null;
  const placeOf = (place: number | null): number | null => {
    const at = place === null ? -1 : there.findIndex((one) => one.at === place);
    return at < 0 ? null : at;
  };
  const chosen = there.findIndex(({ entry }) => entry === set.entries[set.chosen]);
  return {
    order: set.order,
    chosen: Math.max(0, chosen),
    ends: placeOf(set.ends),
    corners: placeOf(set.corners),
    parts: there.map(({ at, entry, form: { head, mesh } }) => {
      const seat = seatOf(head.seat);
      const { size } = seatedExtents(mesh, seat);
      const wide = Math.max(size[0], size[1]);
      const scale = (head.seat.scale / 100) * (entry.scale / 100);
      return {
        entry: at,
        partId: head.id,
        mesh: head.mesh,
        name: head.card.name,
        seat,
        stood: stood(mesh, seat),
        unit: wide > 0 ? (2 / wide) * scale : scale,
        sunk: ((head.seat.sink + entry.sink) / 100) * size[2],
        turnRad: (entry.turn * Math.PI) / 180,
        base: head.seat.base,
        chance: entry.chance / 100,
      };
    }),
  };
}
