/** Back to the flat plane that the slab began as. */
import type { Surface } from '#core/sculpt';
import { changePlaces } from './change';

export function untouched(s: Surface, side: number): void {
  const { order, vertexCount } = s.mesh;
  const cells = Math.round(Math.sqrt(vertexCount)) - 1;
  const row = cells + 1;
  changePlaces(s, (vertex, out) => {
    const at = order[vertex];
    out[0] = ((2 * (at % row) - cells) / cells) * (side / 2);
    out[1] = ((2 * Math.floor(at / row) - cells) / cells) * (side / 2);
    out[2] = 0;
  });
}
