import { onPicture, onSquare } from './pictureShape';

test.each([[{ width: 300, height: 200 }], [{ width: 90, height: 400 }], [{ width: 64, height: 64 }]])(
  'there and back on %j; the longer side fills the square',
  (shape) => {
    for (const [u, v] of [
      [0, 0],
      [1, 1],
      [0.2, 0.9],
      [-0.3, 1.4],
    ]) {
      const { own, long } = onPicture(shape, ...onSquare(shape, u, v));
      expect(own[0]).toBeCloseTo(u, 12);
      expect(own[1]).toBeCloseTo(v, 12);
      const longer = Math.max(shape.width, shape.height);
      expect(long).toEqual([
        expect.closeTo((u * shape.width) / longer, 12),
        expect.closeTo((v * shape.height) / longer, 12),
      ]);
    }
    const [left, top] = onSquare(shape, 0, 0);
    expect(Math.min(left, top)).toBeCloseTo(0, 12);
  },
);
