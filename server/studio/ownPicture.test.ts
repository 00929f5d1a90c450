/** A brush with a picture of one's own is shown by it; what can't be read, or is too large unfolded, by its stroke. */
import sharp from 'sharp';
import { BrushSchema, newBrush, type Brush } from '#core/settings';
import type { Desk } from './desk';
import { brushPicture } from './pictures';

const ID = '5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e';
const none = { form: null, tooth: null, part: null };
const desk = {} as Desk;
const urlOf = (bytes: Uint8Array, kind = 'png'): string =>
  `data:image/${kind};base64,${Buffer.from(bytes).toString('base64')}`;
const plain = (width: number, height: number, background: string | object): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 4, background: background as string } })
    .png({ compressionLevel: 9 })
    .toBuffer();
function withOwn(own: string | null): Brush {
  const brush = newBrush(ID, 'Own');
  return BrushSchema.parse({ ...brush, thumbnail: { own } });
}
const middle = async (png: Buffer): Promise<number[]> => {
  const { data, info } = await sharp(png).raw().toBuffer({ resolveWithObject: true });
  expect([info.width, info.height, info.channels]).toEqual([160, 160, 3]);
  const at = (80 * 160 + 80) * 3;
  return [...data.subarray(at, at + 3)];
};

test('it is squared, and what is clear lies on the view’s ground', async () => {
  const red = withOwn(urlOf(await plain(320, 200, '#c02010')));
  expect(await middle(await brushPicture(desk, red, none))).toEqual([0xc0, 0x20, 0x10]);
  const clear = withOwn(urlOf(await plain(64, 64, { r: 255, g: 0, b: 0, alpha: 0 })));
  expect(await middle(await brushPicture(desk, clear, none))).toEqual([0xb0, 0xaf, 0xac]);
  const webp = await sharp(await plain(320, 320, '#10a040'))
    .webp()
    .toBuffer();
  const [r, g, b] = await middle(await brushPicture(desk, withOwn(urlOf(webp, 'webp')), none));
  expect([Math.abs(r - 0x10) < 12, Math.abs(g - 0xa0) < 12, Math.abs(b - 0x40) < 12]).toEqual([true, true, true]);
});

test('nonsense, a file that is cut off and one that unfolds too far are passed over', async () => {
  const drawn = await brushPicture(desk, withOwn(null), none);
  const good = await plain(320, 320, '#c02010');
  const huge = await plain(2500, 2500, '#c02010');
  expect(huge.length).toBeLessThan(70_000);
  for (const bytes of [Buffer.from('no picture'), good.subarray(0, 60), huge])
    expect((await brushPicture(desk, withOwn(urlOf(bytes)), none)).equals(drawn)).toBe(true);
});

test('what is no data URL of a picture, or is too long, is refused', () => {
  const refused = (own: string): boolean =>
    !BrushSchema.safeParse({ ...newBrush(ID, 'Own'), thumbnail: { own } }).success;
  expect(refused('https://example.org/a.png')).toBe(true);
  expect(refused('data:image/svg+xml;base64,AAAA')).toBe(true);
  expect(refused(`data:image/png;base64,${'A'.repeat(96_000)}`)).toBe(true);
  expect(refused('data:image/png;base64,AAAA')).toBe(false);
});
