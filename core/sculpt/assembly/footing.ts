// Twin of core/sculpt/plain/footing.ts. Leaves must be found before; the sum goes to scratch[12 … 14].
import { copyAtOf, f, LEAF, LEAF_SHIFT, leafTrianglesOf, leavesOf, positionsOf, scratchOf, trianglesOf } from './surface';

@inline function place(positions: usize, copyAt: usize, vertex: u32): usize {
  const copy = <usize>load<u32>(copyAt + (<usize>(vertex >> LEAF_SHIFT) << 2));
  return copy != 0 ? copy + <usize>(vertex & (LEAF - 1)) * 12 : positions + <usize>vertex * 12;
}

export function footing(s: usize, found: u32, sx: f64, sy: f64, sz: f64, x: f64, y: f64, z: f64, reach: f64): void {
  const positions = positionsOf(s);
  const triangles = trianglesOf(s);
  const copyAt = copyAtOf(s);
  const leaves = leavesOf(s);
  const leafTriangles = leafTrianglesOf(s);
  const r2 = reach * reach;
  let ox = 0.0;
  let oy = 0.0;
  let oz = 0.0;
  for (let i: u32 = 0; i < found; i++) {
    const leaf = leafTriangles + (<usize>load<u32>(leaves + (<usize>i << 2)) << 2);
    const end = triangles + <usize>load<u32>(leaf + 4) * 12;
    for (let t = triangles + <usize>load<u32>(leaf) * 12; t < end; t += 12) {
      const a = place(positions, copyAt, load<u32>(t));
      const b = place(positions, copyAt, load<u32>(t + 4));
      const c = place(positions, copyAt, load<u32>(t + 8));
      const ax = f(a);
      const ay = f(a + 4);
      const az = f(a + 8);
      const ux = f(b) - ax;
      const uy = f(b + 4) - ay;
      const uz = f(b + 8) - az;
      const vx = f(c) - ax;
      const vy = f(c + 4) - ay;
      const vz = f(c + 8) - az;
      const dx = ax + (ux + vx) / 3 - x;
      const dy = ay + (uy + vy) / 3 - y;
      const dz = az + (uz + vz) / 3 - z;
      if (dx * dx + dy * dy + dz * dz > r2) continue;
      const nx = uy * vz - uz * vy;
      const ny = uz * vx - ux * vz;
      const nz = ux * vy - uy * vx;
      if (nx * sx + ny * sy + nz * sz <= 0) continue;
      ox += nx;
      oy += ny;
      oz += nz;
    }
  }
  const q = scratchOf(s);
  store<f64>(q + 96, ox);
  store<f64>(q + 104, oy);
  store<f64>(q + 112, oz);
}
