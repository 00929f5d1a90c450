import { resolveBrush } from '#core/brush';
import { newPicture, pyramid } from '#core/picture';
import { ACTIONS, newBrush, STROKE_TYPES, type Brush } from '#core/settings';
import { brushThumbnail, THUMBNAIL_SIZE } from './index';

const bare = thumbnail((b) => (b.touch.strength = 0));

function thumbnail(change: (b: Brush) => void = () => undefined): Uint8ClampedArray {
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Picture');
  change(brush);
  return brushThumbnail(resolveBrush(brush, null));
}

/** Share of the pixels that differ. */
function changed(a: Uint8ClampedArray, b: Uint8ClampedArray): number {
  let count = 0;
  for (let i = 0; i < a.length; i += 4) if (a[i] !== b[i] || a[i + 1] !== b[i + 1] || a[i + 2] !== b[i + 2]) count++;
  return count / THUMBNAIL_SIZE ** 2;
}

test.each(STROKE_TYPES)('%s shows what it does, in the middle and not at the corners', (type) => {
  const picture = thumbnail((b) => (b.stroke.type = type));
  expect(picture).toHaveLength(THUMBNAIL_SIZE ** 2 * 4);
  expect(changed(picture, bare)).toBeGreaterThan(0.1);
  for (const corner of [0, THUMBNAIL_SIZE - 1, THUMBNAIL_SIZE ** 2 - THUMBNAIL_SIZE, THUMBNAIL_SIZE ** 2 - 1]) {
    expect(Array.from(picture.subarray(corner * 4, corner * 4 + 4))).toEqual(
      Array.from(bare.subarray(corner * 4, corner * 4 + 4)),
    );
  }
});

test('no two actions look alike but those that raise alike on flat clay', () => {
  const pictures = ACTIONS.map((action) => [action, thumbnail((b) => (b.touch.action = action))] as const);
  for (const [one, a] of pictures) {
    for (const [other, b] of pictures) {
      if (one >= other) continue;
      const alike = ['lift', 'build', 'inflate'].includes(one) && ['lift', 'build', 'inflate'].includes(other);
      if (!alike) expect([one, other, changed(a, b) > 0.02]).toEqual([one, other, true]);
    }
  }
});

test('a form that is grown is told from one that is pressed', () => {
  const [press, grow] = (['press', 'grow'] as const).map((type) => thumbnail((b) => (b.stroke.type = type)));
  expect(changed(press, grow)).toBeGreaterThan(0.2);
});

test('the same brush gives the same picture at whatever size it is used', () => {
  expect(thumbnail((b) => (b.stroke.size = 0.05))).toEqual(thumbnail((b) => (b.stroke.size = 0.5)));
});

test('the picture is that of its alpha', () => {
  const half = newPicture(64);
  for (let i = 0; i < half.data.length; i++) half.data[i] = i % 64 < 32 ? 1 : 0;
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Half');
  brush.stroke.type = 'press';
  brush.touch.falloff.kind = 'full';
  const picture = brushThumbnail(resolveBrush(brush, { pyramid: pyramid(half), relief: 0.2, vector: null }));
  const row = THUMBNAIL_SIZE / 2;
  const at = (x: number): number => picture[(row * THUMBNAIL_SIZE + Math.round(x * THUMBNAIL_SIZE)) * 4];
  // Flat on the raised half and beside it; the wall between them looks away from the light.
  expect(Math.abs(at(0.3) - at(0.8))).toBeLessThan(12);
  expect(Math.min(...Array.from({ length: 13 }, (_, k) => at(0.46 + k * 0.0066)))).toBeLessThan(at(0.3) * 0.75);
});
