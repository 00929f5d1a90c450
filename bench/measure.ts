/** How figures are taken: medians of several runs after a warm-up, each beside a floor from the same run. */

export interface Figure {
  key: string;
  what: string;
  value: number;
  unit: string;
  /** What this machine takes for the least that could be done, in the same unit. */
  floor: { what: string; value: number };
  target: { text: string; met: boolean };
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[sorted.length >> 1];
}

/** Median milliseconds of `runs` calls after `warm` that don't count. */
export function time(runs: number, warm: number, call: (run: number) => void): number {
  const taken: number[] = [];
  for (let i = 0; i < runs + warm; i++) {
    const began = performance.now();
    call(i);
    if (i >= warm) taken.push(performance.now() - began);
  }
  return median(taken);
}

export async function timeAsync(runs: number, warm: number, call: (run: number) => Promise<void>): Promise<number> {
  const taken: number[] = [];
  for (let i = 0; i < runs + warm; i++) {
    const began = performance.now();
    await call(i);
    if (i >= warm) taken.push(performance.now() - began);
  }
  return median(taken);
}
