/**
 * Smooth: moves each vertex towards the mean of its neighbours (umbrella Laplacian: G. Taubin, "A signal
 * processing approach to fair surface design", 1995). A full-strength dab takes four such steps.
 * All new places are found before any vertex moves, so the order of vertices doesn't matter. The open border
 * of a plane stays where it is.
 */
import type { ResolvedBrush } from '#core/brush';
import type { Surface } from './surface';
import { weigh } from './weigh';

const STEPS = 4;

export function smooth(s: Surface, brush: ResolvedBrush): void {
  const { mesh, touched, u, v, touchedCount } = s;
  const { positions: p, fanStarts, fans, triangles } = mesh;
  const steps = Math.max(1, Math.ceil(brush.strength * STEPS));
  const share = (brush.strength * STEPS) / steps;
  const next = new Float32Array(touchedCount * 3);
  for (let step = 0; step < steps; step++) {
    for (let i = 0; i < touchedCount; i++) {
      const vertex = touched[i]!;
      const first = fanStarts[vertex]!;
      const end = fanStarts[vertex + 1]!;
      let x = 0;
      let y = 0;
      let z = 0;
      let unpaired = 0;
      for (let k = first; k < end; k++) {
        const t = fans[k]! * 3;
        for (let c = 0; c < 3; c++) {
          const corner = triangles[t + c]!;
          const at = corner * 3;
          unpaired ^= corner;
          x += p[at]!;
          y += p[at + 1]!;
          z += p[at + 2]!;
        }
      }
      // Every triangle of the fan names the vertex itself once.
      const faces = end - first;
      const at = vertex * 3;
      // Round an inner vertex every neighbour stands in two triangles and cancels itself out.
      if (faces % 2 === 1) unpaired ^= vertex;
      const pull = unpaired === 0 ? (share * weigh(brush, u[i]!, v[i]!)) / (2 * faces) : 0;
      next[i * 3] = p[at]! + (x - 3 * faces * p[at]!) * pull;
      next[i * 3 + 1] = p[at + 1]! + (y - 3 * faces * p[at + 1]!) * pull;
      next[i * 3 + 2] = p[at + 2]! + (z - 3 * faces * p[at + 2]!) * pull;
    }
    for (let i = 0; i < touchedCount; i++) {
      const at = touched[i]! * 3;
      p[at] = next[i * 3]!;
      p[at + 1] = next[i * 3 + 1]!;
      p[at + 2] = next[i * 3 + 2]!;
    }
  }
}
