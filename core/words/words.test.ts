import { counted, spaced } from './index';

test.each([
  [0, '0'],
  [999, '999'],
  [10_432.4, '10 432'],
  [1_234_567, '1 234 567'],
])('%d is written %s', (n, text) => expect(spaced(n)).toBe(text));

test('one is one, none and more are many', () => {
  expect([counted(0, 'face'), counted(1, 'face'), counted(2000, 'face')]).toEqual(['0 faces', '1 face', '2 000 faces']);
  expect(counted(3, 'vertex', 'vertices')).toBe('3 vertices');
});
