/** Seam error: the step from the last row and column to the first, against the strongest steps inside; 1 is as inside. */
import type { Picture } from '#core/picture';
import type { Check } from './check';

export const SEAM_LIMIT = 1.6;

export function seamError({ width, height, data }: Picture): number {
  const columns = new Float64Array(width);
  const rows = new Float64Array(height);
  for (let j = 0; j < height; j++) {
    const up = (j === 0 ? height - 1 : j - 1) * width;
    for (let i = 0; i < width; i++) {
      const v = data[j * width + i]!;
      columns[i]! += Math.abs(v - data[j * width + (i === 0 ? width - 1 : i - 1)]!) / height;
      rows[j]! += Math.abs(v - data[up + i]!) / width;
    }
  }
  return Math.max(against(columns), against(rows));
}

/** The first step, from the last to the first, against the strong ones inside: a regular pattern has rows of them. */
function against(steps: Float64Array): number {
  const inner = steps.slice(1).sort();
  return steps[0]! / Math.max(1e-4, inner[Math.floor(inner.length * 0.97)]!);
}

export function checkSeam(picture: Picture): Check {
  const value = seamError(picture);
  const ok = value <= SEAM_LIMIT;
  return {
    name: 'seam', ok, value, limit: SEAM_LIMIT, unit: '×',
    sentence: ok ? 'It repeats without a seam' : `Repeated, the seam is ${value.toFixed(1)} times as strong as the picture’s own steps.`,
  };
}
