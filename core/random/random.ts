/**
 * Seeded random numbers that are the same on every machine.
 *
 * `sfc32` by Chris Doty-Humphrey (PractRand), seeded through a 32-bit finaliser (splitmix, Steele et al. 2014).
 */
export type Random = () => number;

/** Uniform numbers in [0, 1). */
export function seeded(seed: number, stream = 0): Random {
  let a = mix(seed ^ 0x9e3779b9);
  let b = mix(a ^ stream);
  let c = mix(b + 0x85ebca6b);
  let d = 1;
  const next = (): number => {
    const t = (((a + b) | 0) + d) | 0;
    d = (d + 1) | 0;
    a = b ^ (b >>> 9);
    b = (c + (c << 3)) | 0;
    c = (((c << 21) | (c >>> 11)) + t) | 0;
    return (t >>> 0) / 4294967296;
  };
  // The first outputs still show the seed.
  for (let i = 0; i < 12; i++) next();
  return next;
}

function mix(x: number): number {
  let h = (x + 0x9e3779b9) | 0;
  h = Math.imul(h ^ (h >>> 16), 0x21f0aaad);
  h = Math.imul(h ^ (h >>> 15), 0x735a2d97);
  return h ^ (h >>> 15);
}
