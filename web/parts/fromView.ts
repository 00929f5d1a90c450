/** Ways of the part bench’s view in a part’s own coordinates: there across, forward and up are x, −z and y. */
import { seatOf } from '#core/part';
import type { PartSeat } from '#core/settings';
import { cross, plus, scaled, type Vec3 } from '#core/vector';

export function fromView(seat: PartSeat, [x, y, z]: readonly [number, number, number]): Vec3 {
  const { up, forward } = seatOf(seat);
  return plus(plus(scaled(cross(forward, up), x), scaled(forward, -z)), scaled(up, y));
}
