/** The compiled loops against what they are twins of, texel by texel. */
import { BLEND_MODES, composited, linearOf, mixedPigments, pigmentOf, srgbOf, type Linear } from '#core/colour';
import { falloffTable } from '#core/falloff';
import { ball, boxCoordinates, buildMesh } from '#core/mesh';
import { newPicture, pyramid, type Picture } from '#core/picture';
import { seeded } from '#core/random';
import { FalloffSchema } from '#core/settings';
import {
  atlas,
  Flattener,
  FULL,
  newLayer,
  PaintStroke,
  Places,
  PLAIN_FORM,
  SmudgeStroke,
  texture,
  TILE_WORDS,
  type Layer,
  type PaintForm,
  type Reading,
} from './index';

const SIZE = 512;
const CELLS = 8;
const MESH = buildMesh({ ...ball(CELLS), carried: { coordinates: boxCoordinates(CELLS, CELLS, CELLS), groups: null } });
const PLACES = new Places(atlas(MESH, MESH.carried?.coordinates, SIZE));
const FRAME = { origin: [0, 0, 1], normal: [0, 0, 1], tangent: [1, 0, 0], bitangent: [0, 1, 0], radius: 0.3 } as const;
const plain: PaintForm = { ...PLAIN_FORM, falloff: falloffTable(FalloffSchema.parse({ kind: 'full' })) };
const TEXELS = TILE_WORDS / 4;

/** A tile of colours and covers by chance; every seventh texel is clear. */
function noise(seed: number): Uint16Array {
  const next = seeded(seed);
  const out = new Uint16Array(TILE_WORDS);
  for (let i = 0; i < TEXELS; i++) {
    const alpha = i % 7 === 0 ? 0 : Math.round(next() * FULL);
    for (let k = 0; k < 3; k++) out[i * 4 + k] = Math.round(next() * alpha);
    out[i * 4 + 3] = alpha;
  }
  return out;
}
const layerOf = (words: Uint16Array, more: Partial<Layer> = {}): Layer => ({
  ...newLayer('a', 'A'),
  tiles: new Map([[0, words]]),
  ...more,
});
const colourAt = (words: Uint16Array, i: number): Linear => {
  const by = 1 / (words[i * 4 + 3] || 1);
  return [words[i * 4] * by, words[i * 4 + 1] * by, words[i * 4 + 2] * by];
};

test.each(BLEND_MODES)('%s over another layer is what the W3C says of each texel', (blend) => {
  const [below, above] = [noise(1), noise(2)];
  const flat = new Flattener();
  expect(flat.flatten([layerOf(below), layerOf(above, { blend, opacity: 0.8 })], 0)).toBe(true);
  let worst = 0;
  for (let i = 0; i < TEXELS; i++) {
    const [a, b] = [below, above].map((w) => ({ colour: srgbOf(colourAt(w, i)), alpha: w[i * 4 + 3] / FULL }));
    const over = { ...b, alpha: b.alpha * 0.8 };
    const alpha = over.alpha + a.alpha * (1 - over.alpha);
    worst = Math.max(worst, Math.abs(flat.out[i * 4 + 3] - alpha));
    if (alpha === 0) continue;
    // Normal layers mix in linear light; the others as displayed.
    const light =
      blend === 'normal'
        ? colourAt(below, i).map(
            (c, k) => (c * a.alpha * (1 - over.alpha) + colourAt(above, i)[k] * over.alpha) / alpha,
          )
        : linearOf(composited(blend, a, over).colour);
    for (let k = 0; k < 3; k++) worst = Math.max(worst, Math.abs(flat.out[i * 4 + k] - light[k] * alpha));
  }
  expect(worst).toBeLessThan(2e-4);
});

test('a stack of plain layers is the same laid at once and one by one', () => {
  const layers = [3, 4, 5].map((seed, i) => layerOf(noise(seed), { opacity: 1 - i * 0.3 }));
  const flat = new Flattener();
  flat.flatten(layers, 0);
  const atOnce = flat.out.slice();
  // A mask that hides nothing takes the other way.
  layers[1].mask = new Map([[0, new Uint16Array(TILE_WORDS)]]);
  flat.flatten(layers, 0);
  expect(Math.max(...flat.out.map((c, i) => Math.abs(c - atOnce[i])))).toBeLessThan(1e-6);
  const words = flat.words();
  expect(words.every((w, i) => Math.abs(w - atOnce[i] * FULL) <= 0.51)).toBe(true);
});

test('a mask hides as much as it says, and what is clipped shows where the layer below covers', () => {
  const [below, above, mask] = [noise(6), noise(7), noise(8)];
  const flat = new Flattener();
  flat.flatten([layerOf(below), layerOf(above, { clipped: true, mask: new Map([[0, mask]]) })], 0);
  for (let i = 0; i < TEXELS; i += 11) {
    const base = below[i * 4 + 3] / FULL;
    const alpha = (above[i * 4 + 3] / FULL) * (1 - mask[i * 4 + 3] / FULL) * base;
    expect(flat.out[i * 4 + 3]).toBeCloseTo(alpha + base * (1 - alpha), 5);
  }
});

/** Every tile near the dab full of colours by chance. */
function primed(): ReturnType<typeof texture> {
  const on = texture(SIZE);
  for (const { tile } of PLACES.near(FRAME.origin, 0.6)) on.tiles.set(tile, noise(tile + 20));
  return on;
}
/** Texels well inside the dab, with what they had and have. */
function* inner(before: ReturnType<typeof texture>, now: ReturnType<typeof texture>) {
  for (const here of PLACES.near(FRAME.origin, 0.3))
    for (let i = 0; i < here.count; i += 5) {
      if (Math.hypot(here.x[i], here.y[i]) > 0.25 || here.z[i] < 0) continue;
      const at = here.at[i];
      yield { at, was: before.tiles.get(here.tile)!, words: now.tiles.get(here.tile)! };
    }
}

test.each([false, true])('a dab mixes as pigments do, with transparency locked: %p', (locked) => {
  const [before, on] = [primed(), primed()];
  const paint: Linear = [0.7, 0.5, 0.02];
  new PaintStroke(on, PLACES, { overlaps: 'even', opacity: 0.9, pigment: true, locked }).dab(
    FRAME,
    plain,
    paint,
    0.5,
    new Set(),
  );
  let seen = 0;
  for (const { at, was, words } of inner(before, on)) {
    const base = was[at * 4 + 3];
    const share = locked ? 0.45 : (0.45 * FULL) / (0.45 * FULL + base * 0.55);
    const whole = locked ? base : base * 0.55 + 0.45 * FULL;
    expect(Math.abs(words[at * 4 + 3] - whole)).toBeLessThan(2);
    const mixed = base > 0 ? mixedPigments(pigmentOf(colourAt(was, at)), pigmentOf(paint), share) : paint;
    for (let k = 0; k < 3; k++) expect(Math.abs(words[at * 4 + k] - mixed[k] * whole)).toBeLessThan(FULL * 1e-3 + 2);
    seen++;
  }
  expect(seen).toBeGreaterThan(300);
});

test('smearing without a move changes a texel no further than to the mean of its cell', () => {
  const on = texture(SIZE);
  for (const { tile } of PLACES.near(FRAME.origin, 0.6)) on.tiles.set(tile, new Uint16Array(TILE_WORDS).fill(FULL / 5));
  const stroke = new SmudgeStroke(on, PLACES, {});
  for (let n = 0; n < 3; n++) stroke.dab(FRAME, plain, 0, 0.8, new Set());
  for (const { at, words } of inner(on, on)) expect(Math.abs(words[at * 4] - FULL / 5)).toBeLessThanOrEqual(2);
});

const ramp: Picture = newPicture(64, 64);
for (let i = 0; i < ramp.data.length; i++) ramp.data[i] = (i % 64) / 63;

test.each<[string, Reading, (u: number, v: number) => number]>([
  ['in its square', { kind: 'flat', fit: 1 }, (u) => (u + 1) / 2],
  ['repeating', { kind: 'repeated', map: [0, 0.5, 0.5, 1, 0, 0] }, (_, v) => (v + 1) / 2],
])('a picture %s is read between its pixels', (_, read, expected) => {
  const on = texture(SIZE);
  const form: PaintForm = { ...plain, picture: { of: pyramid(ramp), from: 'bright', read } };
  new PaintStroke(on, PLACES, { overlaps: 'even', opacity: 1 }).dab(FRAME, form, [1, 1, 1], 1, new Set());
  let seen = 0;
  for (const here of PLACES.near(FRAME.origin, 0.3))
    for (let i = 0; i < here.count; i += 3) {
      const [u, v] = [here.x[i] / 0.3, here.y[i] / 0.3];
      if (Math.hypot(u, v) > 0.9 || here.z[i] < 0.5) continue;
      const cover = on.tiles.get(here.tile)![here.at[i] * 4 + 3] / FULL;
      expect(Math.abs(cover - expected(u, v))).toBeLessThan(0.03);
      seen++;
    }
  expect(seen).toBeGreaterThan(500);
});

test('a dab that keeps to what hangs together leaves the sheet under it alone', () => {
  // Two squares, one just under the other, looking the same way.
  const square = (z: number) => [-1, -1, z, 1, -1, z, 1, 1, z, -1, 1, z];
  const uv = (from: number) => [from, 0.1, from + 0.4, 0.1, from + 0.4, 0.5, from, 0.1, from + 0.4, 0.5, from, 0.5];
  const sheets = buildMesh({
    positions: Float32Array.from([...square(0), ...square(-0.05)]),
    triangles: Uint32Array.from([0, 1, 2, 0, 2, 3, 4, 5, 6, 4, 6, 7]),
    carried: { coordinates: Float32Array.from([...uv(0.05), ...uv(0.55)]), groups: null },
  });
  const places = new Places(atlas(sheets, sheets.carried!.coordinates, SIZE));
  const frame = { ...FRAME, origin: [0, 0, 0] } as const;
  const covered = (connected: PaintForm['connected']): number =>
    new PaintStroke(texture(SIZE), places, { overlaps: 'even', opacity: 1 }).dab(
      frame,
      { ...plain, connected },
      [1, 0, 0],
      1,
      new Set(),
    );
  const both = covered(null);
  expect(both).toBeGreaterThan(1000);
  expect(covered({ triangle: null }) / both).toBeCloseTo(0.5, 2);
  expect(covered({ triangle: 0 }) / both).toBeCloseTo(0.5, 2);
});

test('nothing is painted or kept open where all is clear and stays so', () => {
  const on = texture(SIZE);
  for (const o of [
    { overlaps: 'add', opacity: 1, erases: true },
    { overlaps: 'add', opacity: 1, locked: true },
  ] as const)
    new PaintStroke(on, PLACES, o).dab(FRAME, plain, [1, 0, 0], 1, new Set());
  expect(on.tiles.size).toBe(0);
});
