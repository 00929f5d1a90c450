/** Changes by number of everything that is unmasked; a half mask takes half. */
import { layeredNoise } from '#core/random';
import { keepLeaf, LEAF_SHIFT, reserveCopies } from '#core/mesh';
import type { ByNumber, NumberKind } from '#core/settings';
import type { Surface } from '#core/sculpt';
import { changePlaces } from './change';

const NOISE_OCTAVES = 4;

export function changeByNumber(s: Surface, change: NumberKind, numbers: ByNumber): void {
  const { mask, normals: n } = s.mesh;
  const free = (vertex: number): number => 1 - mask[vertex];
  switch (change) {
    case 'inflate':
      return changePlaces(s, (v, out) => {
        const by = numbers.inflate * free(v);
        for (let c = 0; c < 3; c++) out[c] += n[v * 3 + c] * by;
      });
    case 'lift':
      return changePlaces(s, (v, out) => {
        out[2] += numbers.lift * free(v);
      });
    case 'smooth':
      return smooth(s, Math.round(numbers.smooth));
    case 'flatten': {
      const mean = meanHeight(s);
      return changePlaces(s, (v, out) => {
        out[2] += (mean - out[2]) * (numbers.flatten / 100) * free(v);
      });
    }
    case 'noise':
      return changePlaces(s, (v, out) => {
        const f = free(v);
        if (f > 0)
          out[2] +=
            numbers.noise *
            f *
            layeredNoise(out[0] / numbers.noiseScale, out[1] / numbers.noiseScale, numbers.noiseSeed, NOISE_OCTAVES);
      });
    case 'terrace':
      return changePlaces(s, (v, out) => {
        if (numbers.terrace > 0)
          out[2] += (terraced(out[2], numbers.terrace, numbers.terraceSoft / 100) - out[2]) * free(v);
      });
  }
}

/** Steps of one height; `soft` of each slopes up to the next. */
function terraced(z: number, step: number, soft: number): number {
  const at = z / step;
  const whole = Math.floor(at);
  const rest = at - whole;
  const rise = soft > 0 ? Math.max(0, Math.min(1, (rest - (1 - soft)) / soft)) : 0;
  return (whole + rise) * step;
}

function meanHeight(s: Surface): number {
  const { positions: p, mask, vertexCount } = s.mesh;
  let sum = 0;
  let weight = 0;
  for (let v = 0; v < vertexCount; v++) {
    const free = 1 - mask[v];
    sum += p[v * 3 + 2] * free;
    weight += free;
  }
  return weight > 0 ? sum / weight : 0;
}

function smooth(s: Surface, steps: number): void {
  if (steps <= 0) return;
  const { mesh, touched, amount } = s;
  let count = 0;
  for (let v = 0; v < mesh.vertexCount; v++) {
    if (mesh.mask[v] >= 1) continue;
    touched[count] = v;
    amount[count++] = 1 - mesh.mask[v];
  }
  s.touchedCount = count;
  reserveCopies(s.start, mesh, mesh.leafCount);
  for (let i = 0, current = -1; i < count; i++) {
    const leaf = touched[i] >> LEAF_SHIFT;
    if (leaf !== current) keepLeaf(s.start, mesh, leaf);
    current = leaf;
  }
  for (let step = 0; step < steps; step++) {
    s.loops.relax(s, 1);
    s.loops.shift(s);
  }
  s.loops.renew(s, touched, count);
}
