import fc from 'fast-check';
import { COMMANDS, COMMAND_IDS, type CommandId } from './commands';
import { assigned, hindrance, holderOf, keysOf, usual, type ChosenKeys } from './keymap';

const taken = (chosen: ChosenKeys): string[] => COMMAND_IDS.flatMap((id) => keysOf(id, chosen));
const twice = (keys: readonly string[]): string[] => keys.filter((key, at) => keys.indexOf(key) !== at);

test('a free key is simply taken', () => {
  const chosen = assigned({}, 'ring', 'F8');
  expect(keysOf('ring', chosen)).toEqual(['F8']);
  expect(holderOf('Shift+R', chosen)).toBeNull();
});

test('a key that is in use is exchanged', () => {
  const chosen = assigned({}, 'mirrorX', 'G');
  expect(keysOf('mirrorX', chosen)).toEqual(['G']);
  expect(keysOf('takeHold', chosen)).toEqual(['X']);
});

test('a held command gets no key with a modifier in exchange', () => {
  const chosen = assigned({}, 'ring', 'A');
  expect(keysOf('ring', chosen)).toEqual(['A']);
  expect(keysOf('adjust', chosen)).toEqual([]);
});

test('the usual key comes back from who has it meanwhile', () => {
  const chosen = usual(assigned({}, 'mirrorX', 'G'), 'takeHold');
  expect(keysOf('takeHold', chosen)).toEqual(['G']);
  expect(keysOf('mirrorX', chosen)).toEqual([]);
});

test('keys that hands know, and those of the browser, are refused with a reason', () => {
  expect(hindrance('Esc', {}, 'ring')).toMatch(/^Esc stays with/);
  expect(hindrance('5', {}, 'ring')).toMatch(/^5 stays with/);
  expect(hindrance('Ctrl+W', {}, 'ring')).toMatch(/browser/);
  expect(hindrance('Shift+Q', {}, 'dig')).toMatch(/held/);
  expect(hindrance('F8', {}, 'dig')).toBeNull();
});

test('chosen keys of commands that are gone are left out', () => {
  expect(assigned({ whittle: 'F9' }, 'ring', 'F8')).toEqual({ ring: 'F8' });
});

test('property: whatever is chosen in whatever order, no key has two meanings and fixed ones stay', () => {
  const ids = COMMAND_IDS.filter((id) => !COMMANDS[id].fixed);
  const keys = [...taken({}), 'F6', 'F7', 'Shift+Z', '/'];
  const step = fc.record({ id: fc.constantFrom(...ids), key: fc.option(fc.constantFrom(...keys)) });
  fc.assert(
    fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
      let chosen: Record<string, string> = {};
      for (const { id, key } of steps) {
        if (key === null) chosen = usual(chosen, id);
        else if (!hindrance(key, chosen, id)) {
          chosen = assigned(chosen, id, key);
          expect(keysOf(id, chosen)).toEqual(key === COMMANDS[id].keys[0] ? COMMANDS[id].keys : [key]);
        }
        expect(twice(taken(chosen))).toEqual([]);
      }
      const fixed: CommandId[] = COMMAND_IDS.filter((id) => COMMANDS[id].fixed);
      for (const id of fixed) expect(keysOf(id, chosen)).toEqual(COMMANDS[id].keys);
      // All given back one after another, everything is as usual.
      for (const id of COMMAND_IDS) chosen = usual(chosen, id);
      expect(twice(taken(chosen))).toEqual([]);
    }),
    { seed: 11, numRuns: 60 },
  );
});
