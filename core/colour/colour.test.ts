import { converter, inGamut } from 'culori';
import { seeded } from '#core/random';
import {
  BLEND_MODES,
  blended,
  composited,
  cssOf,
  drawColour,
  driftedColour,
  hexOf,
  linearOf,
  linearOfLch,
  mixedPigments,
  MOST_COLOURS,
  noiseColour,
  okLabOf,
  okLchOf,
  pigmentOf,
  readCss,
  readStrip,
  readTokens,
  shown,
  srgbOf,
  srgbOfHex,
  STILL,
  stripOf,
  tokensOf,
  type Palette,
  type Srgb,
  type Triple,
} from './index';

const random = seeded(11);
const anyColour = (): Srgb => [random(), random(), random()];
const close = (a: Triple, b: Triple, digits = 6): void => a.forEach((x, k) => expect(x).toBeCloseTo(b[k]!, digits));

describe('spaces', () => {
  const oklch = converter('oklch');
  test('as an independent library has them, there and back', () => {
    for (let n = 0; n < 400; n++) {
      const colour = anyColour();
      const [lightness, chroma, hue] = okLchOf(linearOf(colour));
      const theirs = oklch({ mode: 'rgb', r: colour[0], g: colour[1], b: colour[2] });
      expect(lightness).toBeCloseTo(theirs.l, 5);
      expect(chroma).toBeCloseTo(theirs.c, 5);
      if (chroma > 0.01) expect(Math.cos(((hue - theirs.h!) * Math.PI) / 180)).toBeCloseTo(1, 5);
      close(srgbOf(linearOfLch([lightness, chroma, hue])), colour, 5);
    }
  });

  test('grey has no chroma, white is 1 and black 0', () => {
    for (const grey of [0, 0.2, 0.5, 1]) expect(okLchOf(linearOf([grey, grey, grey]))[1]).toBeLessThan(1e-6);
    expect(okLabOf([1, 1, 1])[0]).toBeCloseTo(1, 6);
    expect(okLabOf([0, 0, 0])[0]).toBe(0);
  });

  test('what a screen can’t show loses chroma, and neither hue nor lightness', () => {
    const seen = inGamut('rgb');
    for (let n = 0; n < 200; n++) {
      const [lightness, hue] = [0.2 + random() * 0.6, random() * 360];
      const colour = srgbOf(shown([lightness, 0.4, hue]));
      expect(seen({ mode: 'rgb', r: colour[0], g: colour[1], b: colour[2] })).toBe(true);
      const [l, c, h] = okLchOf(linearOf(colour));
      expect(l).toBeCloseTo(lightness, 2);
      if (c > 0.02) expect(Math.cos(((h - hue) * Math.PI) / 180)).toBeGreaterThan(0.999);
    }
    expect(shown([1.2, 0.1, 30])).toEqual([1, 1, 1]);
    expect(shown([-0.1, 0.1, 30])).toEqual([0, 0, 0]);
  });

  test('hex: both lengths, whatever else is none', () => {
    expect(hexOf([1, 0.5, 0])).toBe('#ff8000');
    close(srgbOfHex('#abc')!, srgbOfHex('#aabbcc')!);
    for (const wrong of ['', '#12', 'red', '#gggggg', '#12345678']) expect(srgbOfHex(wrong)).toBeNull();
  });
});

describe('drift', () => {
  const first = srgbOfHex('#7f8f5a')!;
  const second = srgbOfHex('#b5654a')!;
  const limits = { hue: 20, chroma: 0.3, lightness: 0.1, mix: 0 };

  test('10 000 dabs keep to their limits, fill them evenly, and repeat with the seed', () => {
    const [, chroma, hue] = okLchOf(linearOf(first));
    const draws = (seed: number) => {
      const chances = seeded(seed);
      return Array.from({ length: 10_000 }, () => drawColour(chances));
    };
    const drawn = draws(5);
    expect(drawn).toEqual(draws(5));
    for (const key of ['hue', 'chroma', 'lightness'] as const) {
      const of = drawn.map((draw) => draw[key]);
      expect(Math.min(...of)).toBeGreaterThanOrEqual(-1);
      expect(Math.max(...of)).toBeLessThanOrEqual(1);
      expect(of.reduce((a, b) => a + b) / of.length).toBeCloseTo(0, 1);
      // Evenly from −1 to 1 the variance is a third.
      expect(of.reduce((a, b) => a + b * b, 0) / of.length).toBeCloseTo(1 / 3, 1);
    }
    for (const draw of drawn.slice(0, 500)) {
      const [l, c, h] = okLchOf(driftedColour(first, second, limits, draw));
      expect(Math.abs(l - okLchOf(linearOf(first))[0])).toBeLessThanOrEqual(0.1001);
      expect(c / chroma).toBeLessThan(1.31);
      expect(Math.abs(((h - hue + 540) % 360) - 180)).toBeLessThan(21);
    }
  });

  test('without limits it is the colour chosen; mixed it lies between the two', () => {
    const none = { hue: 0, chroma: 0, lightness: 0, mix: 0 };
    for (let n = 0; n < 20; n++) close(driftedColour(first, second, none, drawColour(random)), linearOf(first), 6);
    close(driftedColour(first, second, { ...none, mix: 1 }, { ...STILL, mix: 1 }), linearOf(second), 6);
    const half = okLabOf(driftedColour(first, second, { ...none, mix: 1 }, { ...STILL, mix: 0.5 }));
    const [a, b] = [okLabOf(linearOf(first)), okLabOf(linearOf(second))];
    close(half, [0, 1, 2].map((k) => (a[k]! + b[k]!) / 2) as unknown as Triple, 6);
  });

  test('along the stroke it moves smoothly, within its limits', () => {
    let last = noiseColour(0, 3);
    for (let n = 1; n < 400; n++) {
      const next = noiseColour(n / 100, 3);
      for (const key of ['hue', 'chroma', 'lightness', 'mix'] as const) {
        expect(Math.abs(next[key])).toBeLessThanOrEqual(1);
        expect(Math.abs(next[key] - last[key])).toBeLessThan(0.15);
      }
      last = next;
    }
    expect(noiseColour(1.234, 3)).toEqual(noiseColour(1.234, 3));
    expect(noiseColour(1.234, 4)).not.toEqual(noiseColour(1.234, 3));
  });
});

describe('pigment', () => {
  const mix = (a: string, b: string, share = 0.5): Srgb =>
    srgbOf(mixedPigments(pigmentOf(linearOf(srgbOfHex(a)!)), pigmentOf(linearOf(srgbOfHex(b)!)), share));

  test('each alone is itself', () => {
    for (let n = 0; n < 100; n++) {
      const [a, b] = [linearOf(anyColour()), linearOf(anyColour())];
      close(mixedPigments(pigmentOf(a), pigmentOf(b), 0), a, 9);
      close(mixedPigments(pigmentOf(a), pigmentOf(b), 1), b, 9);
      close(mixedPigments(pigmentOf(a), pigmentOf(a), random()), a, 9);
    }
  });

  test('blue and yellow make green; red and yellow orange; black darkens more than light does', () => {
    const [, chroma, hue] = okLchOf(linearOf(mix('#2060c0', '#ffe000')));
    expect(hue).toBeGreaterThan(130);
    expect(hue).toBeLessThan(175);
    expect(chroma).toBeGreaterThan(0.08);
    const [r, g, b] = mix('#c8201c', '#f4d31f');
    expect(r).toBeGreaterThan(g);
    expect(g).toBeGreaterThan(b);
    const [grey] = mix('#ffffff', '#101010');
    expect(grey).toBeLessThan(0.5);
  });
});

describe('blending', () => {
  test('against values worked out by hand', () => {
    const below: Srgb = [0.2, 0.5, 0.8];
    const above: Srgb = [0.6, 0.4, 0.1];
    const hand: Partial<Record<(typeof BLEND_MODES)[number], Triple>> = {
      normal: above,
      multiply: [0.12, 0.2, 0.08],
      screen: [0.68, 0.7, 0.82],
      overlay: [0.24, 0.4, 0.64],
      darken: [0.2, 0.4, 0.1],
      lighten: [0.6, 0.5, 0.8],
      'color-dodge': [0.5, 0.8333333, 0.8888889],
      'color-burn': [0, 0, 0],
      'hard-light': [0.36, 0.4, 0.16],
      'soft-light': [0.2496, 0.45, 0.672],
      difference: [0.4, 0.1, 0.7],
      exclusion: [0.56, 0.5, 0.74],
    };
    for (const [mode, wanted] of Object.entries(hand))
      close(blended(mode as (typeof BLEND_MODES)[number], below, above), wanted, 5);
    close(blended('color-burn', [0.9, 0.9, 0.9], [0.5, 0.2, 1]), [0.8, 0.5, 0.9]);
  });

  test('hue, saturation, colour and luminosity take just that from above', () => {
    const lum = ([r, g, b]: Triple): number => 0.3 * r + 0.59 * g + 0.11 * b;
    for (let n = 0; n < 100; n++) {
      const [below, above] = [anyColour(), anyColour()];
      for (const mode of ['hue', 'saturation', 'color'] as const)
        expect(lum(blended(mode, below, above))).toBeCloseTo(lum(below), 6);
      expect(lum(blended('luminosity', below, above))).toBeCloseTo(lum(above), 6);
      for (const mode of BLEND_MODES)
        for (const c of blended(mode, below, above)) {
          expect(c).toBeGreaterThan(-1e-9);
          expect(c).toBeLessThan(1 + 1e-9);
        }
    }
  });

  test('cover: nothing above leaves what is below; half of white on black is grey; on nothing it stays itself', () => {
    const below = { colour: anyColour(), alpha: 0.7 };
    close(composited('multiply', below, { colour: anyColour(), alpha: 0 }).colour, below.colour);
    const grey = composited('normal', { colour: [0, 0, 0], alpha: 1 }, { colour: [1, 1, 1], alpha: 0.5 });
    expect(grey).toEqual({ colour: [0.5, 0.5, 0.5], alpha: 1 });
    const alone = composited('multiply', { colour: [0, 0, 0], alpha: 0 }, { colour: [0.2, 0.4, 0.6], alpha: 0.3 });
    close(alone.colour, [0.2, 0.4, 0.6]);
    expect(alone.alpha).toBeCloseTo(0.3, 9);
  });
});

describe('palettes', () => {
  const palette: Palette = {
    name: 'Tidewrack',
    colours: ['#7f8f5a', '#b5654a', '#5d7f8a', '#d9d2c4'].map((hex, i) => ({
      name: ['Weed', 'Rust', 'Harbour water', 'Rust'][i]!,
      colour: srgbOfHex(hex)!,
    })),
  };
  const hexes = ({ colours }: Palette): string[] => colours.map(({ colour }) => hexOf(colour));

  test('out and in again by design tokens, CSS and a strip', () => {
    const tokens = readTokens(tokensOf(palette));
    expect([tokens.name, hexes(tokens)]).toEqual(['Tidewrack', hexes(palette)]);
    expect(tokens.colours.map(({ name }) => name)).toEqual(['Weed', 'Rust', 'Harbour water', 'Rust 2']);
    const css = readCss(cssOf(palette));
    expect([css.name, hexes(css)]).toEqual(['Tidewrack', hexes(palette)]);
    expect(css.colours[2]!.name).toBe('harbour water');
    const strip = stripOf(palette, 8);
    expect([strip.width, strip.height]).toEqual([32, 8]);
    expect(hexes(readStrip(strip))).toEqual(hexes(palette));
  });

  test('groups travel in design tokens and CSS', () => {
    const groups = ['', 'Water', '', 'Iron'];
    const own: Palette = {
      name: 'Tide {2}',
      colours: palette.colours.map((one, i) => ({ ...one, ...(groups[i] ? { group: groups[i] } : {}) })),
    };
    const groupsOf = ({ colours }: Palette): string[] =>
      colours.map(({ colour, group }) => `${group ?? ''} ${hexOf(colour)}`).sort();
    expect(groupsOf(readTokens(tokensOf(own)))).toEqual(groupsOf(own));
    expect(readCss(cssOf(own)).name).toBe('Tide {2}');
    expect(groupsOf(readCss(cssOf(own)))).toEqual(groupsOf(own));
    // A group and a colour beside it of one name.
    const twice = [{ ...palette.colours[1]!, group: 'Rust' }, palette.colours[1]!];
    expect(readTokens(tokensOf({ name: 'Rust', colours: twice })).colours.map(({ group }) => group)).toEqual([
      undefined,
      'Rust',
    ]);
  });

  test('tokens of others: groups in groups, the older form, what is no colour left out', () => {
    const text = JSON.stringify({
      brand: { $type: 'color', base: { red: { $value: '#f00' } }, size: { $type: 'dimension', $value: '4px' } },
      loose: { $type: 'color', $value: { colorSpace: 'srgb', components: [0, 1.5, 0.25] } },
      other: { $type: 'color', $value: { colorSpace: 'lab', components: [50, 1, 1], hex: '#123456' } },
    });
    expect(hexes(readTokens(text))).toEqual(['#ff0000', '#00ff40', '#123456']);
  });

  test('what is broken, empty or endless is said in a sentence', () => {
    expect(() => readTokens('{')).toThrow('isn’t JSON');
    expect(() => readTokens('{"a":1}')).toThrow('no colour');
    expect(() => readCss('body { color: red }')).toThrow('no colour');
    const many = Array.from({ length: 10_000 }, (_, n) => `--c${n}: #${n.toString(16).padStart(6, '0')};`).join('\n');
    expect(() => readCss(many)).toThrow(`${MOST_COLOURS} at most`);
    expect(() => readCss('x'.repeat(1_000_001))).toThrow('too long');
    expect(() => readStrip({ width: 33, height: 8, data: new Uint8Array(33 * 24) })).toThrow('row of squares');
    expect(() => readStrip({ width: 10_000, height: 1, data: new Uint8Array(30_000) })).toThrow('at most');
    let deep = '"#fff"';
    for (let n = 0; n < 5000; n++) deep = `{"a":${deep}}`;
    expect(() => readTokens(deep)).toThrow('no colour');
  });
});
