import { nextTick, ref } from 'vue';
import { seeded } from '#core/random';
import { digitsOf, numberIn, useTypedNumber } from './useTypedNumber';

test('a number is read as people write it', () => {
  expect(numberIn('1,25')).toBe(1.25);
  expect(numberIn('−3.5 %')).toBe(-3.5);
  expect(numberIn(' 40 %')).toBe(40);
  expect(numberIn('deep')).toBeNull();
  expect(numberIn('')).toBeNull();
  expect(['1', '5', '0.5', '0.05', '0.0001'].map(Number).map(digitsOf)).toEqual([0, 0, 1, 2, 3]);
});

/** A field over a value from 0 to 100 that follows at once, or when `settle` is called: a page may be slow. */
function fieldOver(first: number, late: boolean) {
  const value = ref(first);
  let coming: number | null = null;
  const settle = async (): Promise<void> => {
    if (coming !== null) value.value = coming;
    coming = null;
    await nextTick();
  };
  const field = useTypedNumber({
    format: (n) => `${n.toFixed(0)} %`,
    value: () => value.value,
    step: () => 1,
    put: (n) => {
      const next = Math.min(100, Math.max(0, Math.round(n)));
      if (late) coming = next;
      else value.value = next;
      return next;
    },
  });
  const element = { select: () => undefined, blur: () => field.blur() };
  const event = (key = '', shiftKey = false): never =>
    ({ key, shiftKey, target: element, preventDefault: () => undefined }) as never;
  return { value, settle, ...field, event };
}

test('it is taken when the field is left, brought into its range, and nonsense leaves what was there', async () => {
  const { value, typed, focus, blur, keydown, event } = fieldOver(40, false);
  focus(event());
  typed.value = '55';
  expect(value.value).toBe(40);
  blur();
  expect([value.value, typed.value]).toEqual([55, '55 %']);
  focus(event());
  typed.value = '9999';
  keydown(event('Enter'));
  expect([value.value, typed.value]).toEqual([100, '100 %']);
  focus(event());
  typed.value = 'deep';
  blur();
  expect([value.value, typed.value]).toEqual([100, '100 %']);
  focus(event());
  typed.value = '3';
  keydown(event('Escape'));
  expect([value.value, typed.value]).toEqual([100, '100 %']);
});

test('a value that was only looked at stays as fine as it is', () => {
  const { value, focus, blur, event } = fieldOver(33.4, false);
  focus(event());
  blur();
  expect(value.value).toBe(33.4);
});

test('however late the page follows, what was typed and stepped is what comes', async () => {
  const random = seeded(12);
  for (let run = 0; run < 200; run++) {
    const { value, typed, settle, focus, blur, keydown, event } = fieldOver(50, true);
    let wanted = 50;
    for (let n = 0; n < 12; n++) {
      focus(event());
      const act = Math.floor(random() * 3);
      if (act === 0) {
        wanted = Math.floor(random() * 101);
        typed.value = String(wanted);
      } else {
        const by = (act === 1 ? 1 : -1) * (random() < 0.3 ? 10 : 1);
        wanted = Math.min(100, Math.max(0, wanted + by));
        keydown(event(by > 0 ? 'ArrowUp' : 'ArrowDown', Math.abs(by) === 10));
      }
      if (random() < 0.5) await settle();
      blur();
      if (random() < 0.5) await settle();
    }
    await settle();
    expect(value.value).toBe(wanted);
    expect(typed.value).toBe(`${wanted} %`);
  }
});
