import { ball, boxCoordinates, buildMesh } from '#core/mesh';
import { atlas, Places } from '.';

const CELLS = 24;

function places(size: number): Places {
  const mesh = buildMesh({
    ...ball(CELLS),
    carried: { coordinates: boxCoordinates(CELLS, CELLS, CELLS), groups: null },
  });
  return new Places(atlas(mesh, mesh.carried?.coordinates, size));
}

test('a dab on a large texture finds only tiles it may meet, and finds them once', () => {
  const all = places(8192);
  all.begin();
  const at = [0, 0, 1] as const;
  const reach = 0.2;
  const found = all.near(at, reach);
  for (const { centre, radius } of found)
    expect(Math.hypot(...centre.map((c, k) => c - at[k]!))).toBeLessThanOrEqual(reach + radius);
  // A dab that moves on by a tenth of itself makes only what is new to it.
  const next = new Set(all.near([0.02, 0, 0.9998], reach));
  const kept = found.filter((one) => next.has(one));
  expect(found.length).toBeGreaterThan(100);
  expect(kept.length).toBeGreaterThan(found.length * 0.85);
  // Back where it was: all is known still, in the same order.
  expect(all.near(at, reach)).toEqual(found);
  expect(all.near(at, reach).every((one, i) => one === found[i])).toBe(true);
});

test('what a dab finds is what lies in reach, wherever it is', () => {
  const some = places(512);
  const every = places(512);
  some.begin();
  every.begin();
  const whole = every.near([0, 0, 0], 2);
  for (const at of [
    [0, 0, 1],
    [0.577, 0.577, 0.577],
    [-1, 0, 0.02],
  ] as const) {
    const reach = 0.3;
    const near = new Set(some.near(at, reach).map(({ tile }) => tile));
    for (const { tile, x, y, z, count } of whole) {
      let inside = false;
      for (let i = 0; i < count && !inside; i++)
        inside = Math.hypot(x[i]! - at[0], y[i]! - at[1], z[i]! - at[2]) < reach;
      if (inside) expect(near.has(tile)).toBe(true);
    }
  }
});
