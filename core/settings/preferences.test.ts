import fc from 'fast-check';
import { preferencesIn, PreferencesSchema, usualPreferences } from './preferences';

test('what was stored comes back', () => {
  const stored = { ...usualPreferences(), theme: 'evening', lengths: 'mm', mmPerUnit: 25.4, keys: { ring: 'F8' } };
  expect(preferencesIn(JSON.stringify(stored))).toEqual(stored);
});

test('one broken entry is as usual and takes nothing else with it', () => {
  const text = JSON.stringify({ author: 'Tidewrack Workshop', undoMb: -3, theme: 'noon', keys: { ring: 7 } });
  expect(preferencesIn(text)).toEqual({ ...usualPreferences(), author: 'Tidewrack Workshop' });
});

test('property: whatever was stored, what is read is valid', () => {
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string(),
        fc.json(),
        fc.object().map((o) => JSON.stringify(o)),
      ),
      (text) => {
        expect(PreferencesSchema.safeParse(preferencesIn(text)).success).toBe(true);
      },
    ),
    { seed: 12, numRuns: 100 },
  );
});
