/** The brushes that paint, and the palette of the wharf. */
import {
  BrushSchema,
  newBrush,
  PaletteSchema,
  PALETTE_VERSION,
  type Alpha,
  type Brush,
  type OwnPalette,
} from '#core/settings';

export const WHARF = {
  chalk: '#e6e0d2',
  sand: '#c9ae7f',
  rust: '#9c4a2a',
  oxide: '#6e2f22',
  verdigris: '#4f8577',
  tide: '#2f5661',
  deep: '#1d2f3a',
  weed: '#5a6a37',
  tar: '#26221f',
  stone: '#8b8378',
} as const;

export function wharfPalette(id: string, author: string): OwnPalette {
  const named = (names: (keyof typeof WHARF)[]) =>
    names.map((name) => ({ colour: WHARF[name], name: name.charAt(0).toUpperCase() + name.slice(1) }));
  return PaletteSchema.parse({
    version: PALETTE_VERSION,
    id,
    card: { name: 'Tidewrack Wharf', author, tags: ['tidewrack'] },
    groups: [
      { name: 'Light', colours: named(['chalk', 'sand', 'stone']) },
      { name: 'Rust', colours: named(['rust', 'oxide']) },
      { name: 'Water', colours: named(['verdigris', 'tide', 'deep', 'weed', 'tar']) },
    ],
  });
}

interface Forms {
  sponge: Alpha;
  barnacle: Alpha;
  knot: Alpha;
}

/** In the order in which they are used: a hard and a soft one, drifting, blending, mixing, a mark, and one for both. */
export function paintBrushes(id: (n: number) => string, author: string, { sponge, barnacle, knot }: Forms): Brush[] {
  const make = (n: number, name: string, alpha: Alpha | null, notes: string, change: object): Brush => {
    const brush = newBrush(id(n), name, author);
    const given = change as Partial<Record<keyof Brush, object>>;
    const form = alpha ? { ...brush.form, alphaId: alpha.id, ground: alpha.ground } : brush.form;
    return BrushSchema.parse({
      ...brush,
      ...given,
      form: { ...form, ...given.form },
      touch: { ...brush.touch, action: 'paint', ...given.touch },
      stroke: { ...brush.stroke, size: 0.16, spacing: 12, ...given.stroke },
      card: { ...brush.card, notes, tags: ['tidewrack', 'paint'] },
    });
  };
  const falloff = (kind: string, hold = 0.6) => ({ kind, hold });
  return [
    make(31, 'Hard paint', null, 'Flat colour with a clean edge.', {
      touch: { falloff: falloff('full') },
      colour: { first: WHARF.rust, second: WHARF.chalk },
    }),
    make(32, 'Soft glaze', null, 'Builds up slowly; for shadow and bounced light.', {
      touch: { overlaps: 'add', falloff: falloff('bell') },
      stroke: { size: 0.24, spacing: 10 },
      colour: { first: WHARF.deep, second: WHARF.sand, flow: 14 },
    }),
    make(33, 'Salt speckle', sponge, 'Every dab has another colour.', {
      touch: { falloff: falloff('plateau', 0.7) },
      stroke: { size: 0.12, spacing: 70, turnFrom: 'random' },
      drift: { along: 60, across: 90, size: 40 },
      colour: { first: WHARF.chalk, second: WHARF.verdigris, hue: 18, lightness: 10, mix: 60, hardness: 40 },
    }),
    make(34, 'Paint streak', sponge, 'Every stroke has another colour, and runs dry.', {
      touch: { falloff: falloff('plateau', 0.5) },
      stroke: { size: 0.14, spacing: 8, turnFrom: 'stroke' },
      colour: { first: WHARF.tide, second: WHARF.weed, per: 'stroke', hue: 22, mix: 50, load: 18, pooling: 40 },
    }),
    make(35, 'Grain smudge', sponge, 'Breaks the edge between two colours.', {
      touch: { action: 'smudge', falloff: falloff('plateau', 0.6) },
      stroke: { size: 0.16, spacing: 10, turnFrom: 'random' },
      colour: { flow: 75 },
    }),
    make(36, 'Pigment mixer', null, 'Takes up what lies below and mixes as paints do.', {
      touch: { overlaps: 'add', falloff: falloff('dome') },
      stroke: { size: 0.16, spacing: 10 },
      colour: { first: WHARF.sand, second: WHARF.tide, flow: 45, pickup: 65, mixing: 'pigment' },
    }),
    make(37, 'Rope-knot mark', knot, 'A crisp mark, seen before the press.', {
      touch: { falloff: falloff('full') },
      stroke: { type: 'press', size: 0.32 },
      colour: { first: WHARF.tar, second: WHARF.chalk, hardness: 70 },
    }),
    make(38, 'Barnacle bloom', barnacle, 'Sculpts and paints in one stroke.', {
      touch: { action: 'lift', falloff: falloff('full') },
      stroke: { size: 0.08, spacing: 85, turnFrom: 'random' },
      drift: { along: 70, across: 100, size: 40 },
      colour: { too: true, first: WHARF.chalk, second: WHARF.stone, mix: 80, lightness: 8, flow: 85 },
    }),
  ];
}
