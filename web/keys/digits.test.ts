import { DigitEntry, TOGETHER_MS } from './digits';

test.each([
  ['3', [30]],
  ['0', [100]],
  ['35', [30, 35]],
  ['05', [100, 5]],
  ['50', [50, 50]],
  ['00', [100, 100]],
  ['357', [30, 35, 70]],
  ['1234', [10, 12, 30, 34]],
])('%s typed quickly', (typed, wanted) => {
  const entry = new DigitEntry();
  expect([...typed].map((digit, n) => entry.press(Number(digit), n * 100))).toEqual(wanted);
});

test('typed slowly, or with something else in between, each digit is a number of its own', () => {
  const entry = new DigitEntry();
  expect([entry.press(3, 0), entry.press(5, TOGETHER_MS + 1)]).toEqual([30, 50]);
  entry.end();
  expect(entry.press(2, TOGETHER_MS + 2)).toBe(20);
});
