/** The parts of a set as they go into one file: one beside the other, each on its seat and in its real size. */
import { packMesh } from '#core/formats';
import type { RawMesh } from '#core/mesh';
import { extentsOf, seatOf, stood } from '#core/part';
import type { Part } from '#core/settings';
import type { PackedOut } from './meshOut.worker';

/** Between two of them, as a share of the wider one. */
const GAP = 0.25;

export function besideEachOther(
  parts: readonly { head: Pick<Part, 'seat' | 'millimetres'> & { card: { name: string } }; mesh: RawMesh }[],
): PackedOut[] {
  let at = 0;
  let before = 0;
  return parts.map(({ head, mesh }) => {
    const { millimetres, card } = head;
    const seated = stood(mesh, seatOf(head.seat));
    const { low, high } = extentsOf(seated.positions);
    const wide = (high[0] - low[0]) * millimetres;
    if (before > 0) at += Math.max(before, wide) * GAP;
    const by = at / millimetres - low[0];
    for (let v = 0; v < seated.positions.length; v += 3) seated.positions[v] += by;
    at += wide;
    before = wide;
    return { name: card.name, mesh: packMesh(seated), millimetres, up: 'z' };
  });
}
