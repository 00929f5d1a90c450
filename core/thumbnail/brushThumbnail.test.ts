import { resolveBrush } from '#core/brush';
import { newPicture, pyramid } from '#core/picture';
import { ACTIONS, newBrush, PLAIN_THUMBNAIL, STROKE_TYPES, type Brush, type Thumbnail } from '#core/settings';
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

describe('the look of the picture', () => {
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Look');
  brush.stroke.type = 'press';
  const seen = (look: Partial<Thumbnail>): Uint8ClampedArray =>
    brushThumbnail(resolveBrush(brush, null), { ...PLAIN_THUMBNAIL, ...look });
  const at = (rgba: Uint8ClampedArray, x: number, y: number): number[] => {
    const i = (Math.round(y * (THUMBNAIL_SIZE - 1)) * THUMBNAIL_SIZE + Math.round(x * (THUMBNAIL_SIZE - 1))) * 4;
    return [...rgba.subarray(i, i + 3)];
  };
  const bright = (rgba: Uint8ClampedArray, x: number, y: number): number =>
    at(rgba, x, y).reduce((sum, c) => sum + c, 0);

  test('as it always was where nothing is said', () => {
    expect(seen({})).toEqual(brushThumbnail(resolveBrush(brush, null)));
  });

  test('the light comes from where it is turned to', () => {
    const [left, right] = [seen({ light: 180 }), seen({ light: 0 })];
    expect(bright(left, 0.3, 0.5)).toBeGreaterThan(bright(left, 0.7, 0.5) * 1.08);
    expect(bright(right, 0.7, 0.5)).toBeGreaterThan(bright(right, 0.3, 0.5) * 1.08);
  });

  test('twice as near, a place half as far from the middle is seen there', () => {
    const [whole, near, far] = [seen({}), seen({ zoom: 200 }), seen({ zoom: 60 })];
    for (const [x, y] of [
      [0.4, 0.45],
      [0.6, 0.55],
    ])
      expect(Math.abs(bright(near, 2 * x - 0.5, 2 * y - 0.5) - bright(whole, x, y))).toBeLessThan(20);
    // Beside the tile lies the ground of the view.
    expect(at(far, 0.01, 0.01)).toEqual([176, 175, 172]);
  });

  test('a ball stands free, and takes the colour it is given; paint lies on it too', () => {
    const ball = seen({ body: 'ball', ground: '#3060c0' });
    expect(at(ball, 0.02, 0.02)).toEqual([176, 175, 172]);
    const [r, g, b] = at(ball, 0.25, 0.6);
    expect(b).toBeGreaterThan(g);
    expect(g).toBeGreaterThan(r);
    const painter = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Red');
    painter.touch.action = 'paint';
    painter.stroke.type = 'press';
    painter.colour.first = '#e02010';
    const painted = brushThumbnail(resolveBrush(painter, null), {
      ...PLAIN_THUMBNAIL,
      body: 'ball',
      ground: '#ffffff',
    });
    const [red, green] = at(painted, 0.5, 0.5);
    expect(red).toBeGreaterThan(green * 2);
    const [beside, white] = at(painted, 0.16, 0.5);
    expect(Math.abs(beside - white)).toBeLessThan(16);
  });

  test.each(['smooth', 'move', 'mask', 'crease'] as const)('%s is drawn on a ball', (action) => {
    const own = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Ball');
    own.touch.action = action;
    const rgba = brushThumbnail(resolveBrush(own, null), { ...PLAIN_THUMBNAIL, body: 'ball' });
    expect(new Set(rgba).size).toBeGreaterThan(60);
    expect(at(rgba, 0.98, 0.02)).toEqual([176, 175, 172]);
  });
});
