import fc from 'fast-check';
import { BrushSchema, newBrush, type Brush } from './brush';
import { copiedIn, copiedSettings, groupsIn, pasteSettings, SETTING_GROUPS } from './travel';

function brush(name: string, seed: number): Brush {
  const made = newBrush('b0000000-0000-4000-8000-00000000000' + seed, name);
  made.touch.strength = 10 + seed;
  made.stroke.spacing = 5 + seed;
  made.drift.count = 1 + seed;
  made.pen.pressureSize.low = 20 + seed;
  made.tooth.depth = 30 + seed;
  made.colour.flow = 40 + seed;
  made.form.depth = 50 + seed;
  return made;
}

test('property: what was copied comes, everything else stays, and the one it came from is untouched', () => {
  fc.assert(
    fc.property(fc.subarray([...SETTING_GROUPS], { minLength: 1 }), (groups) => {
      const from = brush('Barnacle', 1);
      const to = brush('Limpet', 2);
      const [was, had] = [structuredClone(from), structuredClone(to)];
      const travelled = copiedIn(JSON.stringify(copiedSettings(from, groups)))!;
      expect(groupsIn(travelled)).toEqual(SETTING_GROUPS.filter((group) => groups.includes(group)));
      pasteSettings(to, travelled);
      for (const key of Object.keys(to) as (keyof Brush)[])
        expect(to[key]).toEqual((groups as string[]).includes(key) ? was[key] : had[key]);
      to.touch.strength = 99;
      to.pen.pressureSize.low = 1;
      expect(from).toEqual(was);
      expect(BrushSchema.safeParse(to).success).toBe(true);
    }),
    { seed: 5, numRuns: 40 },
  );
});

test('what can’t be read is nothing to paste', () => {
  expect(copiedIn('')).toBeNull();
  expect(copiedIn('{"from":"x","groups":{}}')).toBeNull();
  expect(copiedIn('{"from":"x","groups":{"touch":{"strength":900}}}')).toBeNull();
});
