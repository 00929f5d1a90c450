/** Small things of the wharf as meshes, z up, centimetres: a cleat, a cork float, trenails and mussels. */
import { boxLattice, type RawMesh } from '#core/mesh';
import { seeded } from '#core/random';

const smooth = (from: number, to: number, x: number): number => {
  const t = Math.max(0, Math.min(1, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
};

/** A bar with two horns on a foot that it is bolted down by. */
export function cleat(): RawMesh {
  return boxLattice(64, 20, 20, (x, y, z) => {
    // Round cross-sections: the square's corners are drawn in.
    const [u, v] = [y * Math.sqrt(1 - (z * z) / 2), z * Math.sqrt(1 - (y * y) / 2)];
    const out = Math.abs(x);
    const tip = Math.sqrt(Math.max(0, 1 - smooth(0.86, 1, out) ** 2 * 0.85));
    const foot = 1 - smooth(0.22, 0.4, out);
    const wide = (1.1 - 0.35 * out + 0.75 * foot) * tip;
    const under = (1 - foot) * (1.55 + 0.5 * out) + (1 - tip) * 0.4;
    const over = 2.6 + 0.75 * out * out - (1 - tip) * 0.6;
    const middle = (under + over) / 2;
    // The foot has a flat sole.
    const height = v < 0 && foot > 0.5 ? -(over - under) / 2 : (v * (over - under)) / 2;
    return [x * 7, u * wide, middle + height];
  });
}

/** A short cylinder with rounded edges, a groove round it for its line, and pits of cork. */
export function corkFloat(seed = 3): RawMesh {
  const random = seeded(seed);
  const pits = Array.from({ length: 26 }, () => [random() * 2 * Math.PI, random() * 2 - 1, 0.1 + random() * 0.16]);
  return boxLattice(44, 44, 22, (x, y, z) => {
    const [u, v] = [x * Math.sqrt(1 - (y * y) / 2), y * Math.sqrt(1 - (x * x) / 2)];
    const far = Math.hypot(u, v);
    const round = Math.sqrt(Math.max(0, 1 - Math.max(0, Math.abs(z) - 0.62) ** 2 / 0.38 ** 2 / 1.6));
    let r = 3 * round * (1 - 0.12 * Math.exp(-((z / 0.16) ** 2)) * smooth(0.8, 1, far));
    const turn = Math.atan2(v, u);
    for (const [at, level, size] of pits) {
      const off = Math.hypot(Math.atan2(Math.sin(turn - at!), Math.cos(turn - at!)) * 1.6, z - level!) / size!;
      if (off < 1 && far > 0.8) r -= 0.16 * (1 - off * off) ** 2;
    }
    return [u * r, v * r, (z + 1) * 1.5];
  });
}

/** An eight-sided peg, driven in: a chamfered head that was struck out of round. */
export function trenail(seed: number): RawMesh {
  const random = seeded(seed);
  const [lean, struck] = [(random() - 0.5) * 0.24, random() * 2 * Math.PI];
  return boxLattice(24, 24, 20, (x, y, z) => {
    const [u, v] = [x * Math.sqrt(1 - (y * y) / 2), y * Math.sqrt(1 - (x * x) / 2)];
    const turn = Math.atan2(v, u);
    const sector = Math.PI / 4;
    const facet = Math.cos(sector / 2) / Math.cos((((turn % sector) + sector) % sector) - sector / 2);
    const chamfer = 1 - 0.2 * smooth(0.62, 1, z);
    const bruise = 1 + 0.07 * smooth(0.2, 0.9, z) * Math.cos(turn - struck);
    const r = 1.05 * facet * chamfer * bruise * (1 - 0.05 * z);
    return [
      u * r + lean * (z + 1),
      v * r,
      (z + 1) * 0.85 - 0.06 * Math.hypot(u, v) * Math.cos(turn * 2 + struck) * (z > 0 ? 1 : 0),
    ];
  });
}

/** A closed mussel that lies on its flatter valve: a drop with growth rings and a keel. */
export function mussel(seed: number): RawMesh {
  const random = seeded(seed);
  const [long, plump, ring] = [5.2 + random() * 1.6, 0.85 + random() * 0.35, random() * 6];
  const bow = (random() - 0.5) * 0.5;
  return boxLattice(46, 30, 18, (x, y, z) => {
    const norm = Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) / Math.hypot(x, y, z);
    const [a, b, c] = [x * norm, y * norm, z * norm];
    // Narrow at the hinge, wide and blunt at the other end.
    const along = (a + 1) / 2;
    const wide = 0.35 + 1.05 * Math.sqrt(along) - 0.25 * along * along;
    const rings = 1 + 0.022 * Math.sin(Math.sqrt((a + 1) ** 2 + b * b) * 17 + ring) * Math.max(0, c);
    const height = c > 0 ? c * plump * (0.7 + 0.5 * along) : c * 0.22;
    return [a * (long / 2) * rings, (b * wide * 1.45 + bow * (1 - a * a)) * rings, height * 1.5 * rings + 0.3];
  });
}
