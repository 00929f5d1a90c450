import fc from 'fast-check';
import { BLEND_MODES, type BlendMode, type Linear } from '#core/colour';
import { edited, filledLayer, flattened, newLayer, type Layer } from './index';
import { FULL, TILE_WORDS } from './texture';

/** One tile of a colour and cover, in stripes where `stripes`. */
function layer(id: string, [r, g, b]: Linear, cover: number, more: Partial<Layer> = {}, stripes = false): Layer {
  const words = new Uint16Array(TILE_WORDS);
  for (let i = 0; i < TILE_WORDS; i += 4) {
    if (stripes && (i / 4) % 8 < 4) continue;
    words.set(
      [r, g, b, 1].map((v) => Math.round(v * cover * FULL)),
      i,
    );
  }
  return { ...newLayer(id, id), tiles: new Map([[0, words]]), ...more };
}

const off = (one: readonly Layer[], other: readonly Layer[]): number => {
  const [a, b] = [flattened(one, 0).tiles.get(0), flattened(other, 0).tiles.get(0)];
  let worst = 0;
  for (let i = 0; i < TILE_WORDS; i += 61) worst = Math.max(worst, Math.abs((a?.[i] ?? 0) - (b?.[i] ?? 0)));
  return worst;
};
const grey = (): Layer => layer('grey', [0.5, 0.5, 0.5], 1);
const merge = (layers: readonly Layer[], id = 'above'): Layer[] => edited(layers, { kind: 'merge', id });

test.each([
  ['half clear red', { opacity: 0.5 }, {}],
  ['hidden red', { hidden: true }, {}],
  ['red over nothing but grey, multiplied', { blend: 'multiply' as const }, {}],
  ['clipped onto red', {}, { clipped: true }],
])('opaque blue over %s looks as it did', (_, below, above) => {
  const layers = [grey(), layer('below', [1, 0, 0], 1, below), layer('above', [0, 0, 1], 1, above)];
  const merged = merge(layers);
  expect(merged.map(({ id }) => id)).toEqual(['grey', 'below']);
  expect(off(layers, merged)).toBeLessThanOrEqual(48);
});

test('every pair of blends over an opaque ground becomes one layer that looks the same, or is left and says why', () => {
  let [done, refused] = [0, 0];
  for (const lower of BLEND_MODES)
    for (const upper of BLEND_MODES) {
      const layers = [
        grey(),
        layer('below', [0.8, 0.2, 0.1], 0.6, { blend: lower }, true),
        layer('above', [0.1, 0.3, 0.7], 0.7, { blend: upper }),
      ];
      try {
        expect(off(layers, merge(layers))).toBeLessThanOrEqual(48);
        done++;
      } catch (error) {
        expect(String(error)).toContain('looks the same');
        refused++;
      }
    }
  expect(done).toBeGreaterThan(0);
  expect(refused).toBeGreaterThan(0);
});

test('whatever blend, opacity, mask, clip, hidden and lock they have, the picture stays', () => {
  const blends = fc.constantFrom<BlendMode>('normal', 'normal', ...BLEND_MODES);
  const any = fc.record({
    colour: fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.constantFrom(0, 1), fc.constantFrom(0, 0.4)),
    cover: fc.constantFrom(1, 1, 0.5),
    stripes: fc.boolean(),
    blend: blends,
    opacity: fc.constantFrom(1, 1, 0.5, 0),
    hidden: fc.constantFrom(false, false, false, true),
    clipped: fc.boolean(),
    locked: fc.boolean(),
    masked: fc.constantFrom(0, 0, 0.3, 1),
  });
  fc.assert(
    fc.property(fc.array(any, { minLength: 2, maxLength: 4 }), fc.boolean(), (kinds, ground) => {
      const made = kinds.map(({ colour, cover, stripes, masked, ...head }, i) => {
        const mask = masked > 0 ? layer('mask', [0, 0, 0], masked, {}, !stripes).tiles : null;
        return layer(`l${i}`, colour, cover, { ...head, mask }, stripes);
      });
      const layers = ground ? [filledLayer('ground', 64, [0.2, 0.5, 0.3]), ...made] : made;
      for (const { id } of layers.slice(1)) {
        let merged: Layer[];
        try {
          merged = merge(layers, id);
        } catch (error) {
          expect(String(error)).toContain('looks the same');
          // Two plain ones that nothing is clipped onto always can.
          const at = layers.findIndex((one) => one.id === id);
          const plain = [layers[at - 1], layers[at]].every(({ blend, clipped }) => blend === 'normal' && !clipped);
          expect(plain && !layers[at + 1]?.clipped).toBe(false);
          continue;
        }
        expect(off(layers, merged)).toBeLessThanOrEqual(48);
      }
    }),
    { numRuns: 60, seed: 3 },
  );
});
