/** The colour that is seen where a ray meets a painted body. */
import { hexOf, srgbOf } from '#core/colour';
import { pick, type Ray } from '#core/mesh';
import { Flattener, tileAt, wordAt } from '#core/paint';
import type { Stage } from '#core/timeline';

/** “#rrggbb”; null beside the body, and where nothing is painted. */
export function colourUnder(
  { surface: { mesh }, painting }: Pick<Stage, 'surface' | 'painting'>,
  ray: Ray,
): string | null {
  const hit = painting && pick(mesh, ray);
  const coordinates = mesh.carried?.coordinates;
  if (!painting || !hit || !coordinates) return null;
  const { positions: p, triangles } = mesh;
  const corner = (k: number): readonly [number, number, number] => {
    const v = triangles[hit.triangle * 3 + k] * 3;
    return [p[v], p[v + 1], p[v + 2]];
  };
  const [a, b, c] = [corner(0), corner(1), corner(2)];
  const shares = sharesOf([hit.x, hit.y, hit.z], a, b, c);
  const at = (k: number): number =>
    shares.reduce((sum, share, i) => sum + share * coordinates[hit.triangle * 6 + i * 2 + k], 0);
  const texel = (x: number): number => Math.min(painting.size - 1, Math.max(0, Math.floor(x * painting.size)));
  const [x, y] = [texel(at(0)), texel(1 - at(1))];
  const flat = new Flattener();
  if (!flat.flatten(painting.layers, tileAt(painting, x, y))) return null;
  const word = wordAt(x, y);
  const [red, green, blue, alpha] = flat.out.subarray(word, word + 4);
  return alpha > 0 ? hexOf(srgbOf([red / alpha, green / alpha, blue / alpha])) : null;
}

type Place = readonly [number, number, number];

/** Shares of a triangle’s corners at a place on it. */
function sharesOf(at: Place, a: Place, b: Place, c: Place): readonly [number, number, number] {
  const minus = (p: Place, q: Place): Place => [p[0] - q[0], p[1] - q[1], p[2] - q[2]];
  const dot = (p: Place, q: Place): number => p[0] * q[0] + p[1] * q[1] + p[2] * q[2];
  const [e, f, g] = [minus(b, a), minus(c, a), minus(at, a)];
  const [ee, ef, ff, ge, gf] = [dot(e, e), dot(e, f), dot(f, f), dot(g, e), dot(g, f)];
  const whole = ee * ff - ef * ef || 1;
  const v = (ff * ge - ef * gf) / whole;
  const w = (ee * gf - ef * ge) / whole;
  return [1 - v - w, v, w];
}
