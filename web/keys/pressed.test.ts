import { COMMANDS, COMMAND_IDS } from './commands';
import { pressed, type Press } from './pressed';

const press = (key: string, code: string, ...held: ('ctrl' | 'alt' | 'shift' | 'meta')[]): Press => ({
  key,
  code,
  ctrlKey: held.includes('ctrl'),
  metaKey: held.includes('meta'),
  altKey: held.includes('alt'),
  shiftKey: held.includes('shift'),
});

test('letters are told with what is held', () => {
  expect(pressed(press('d', 'KeyD'))).toBe('D');
  expect(pressed(press('D', 'KeyD', 'shift'))).toBe('Shift+D');
  expect(pressed(press('Z', 'KeyZ', 'ctrl', 'shift'))).toBe('Ctrl+Shift+Z');
  expect(pressed(press('z', 'KeyY', 'meta'))).toBe('Ctrl+Z');
  expect(pressed(press('Ω', 'KeyZ', 'ctrl', 'alt'))).toBe('Ctrl+Alt+Z');
});

test('a capital by the lock alone is the plain letter', () => {
  expect(pressed(press('D', 'KeyD'))).toBe('D');
});

test('a sign says by itself that Shift is held', () => {
  expect(pressed(press('?', 'Slash', 'shift'))).toBe('?');
  expect(pressed(press('[', 'BracketLeft'))).toBe('[');
  // On a German keyboard the bracket stands under AltGr, which is Ctrl and Alt.
  expect(pressed(press('ArrowLeft', 'ArrowLeft', 'ctrl'))).toBe('Ctrl+ArrowLeft');
});

test('Shift and a digit is the digit’s place, whatever sign stands there', () => {
  expect(pressed(press('!', 'Digit1', 'shift'))).toBe('Shift+1');
  expect(pressed(press('"', 'Digit2', 'shift'))).toBe('Shift+2');
  // Where digits themselves are typed with Shift they are digits.
  expect(pressed(press('1', 'Digit1', 'shift'))).toBe('1');
});

test('keys that mean nothing by themselves are no press', () => {
  for (const key of ['Shift', 'Control', 'Alt', 'Meta', 'Dead']) expect(pressed(press(key, ''))).toBeNull();
});

test('one key has one meaning: no two commands share one', () => {
  const all = COMMAND_IDS.flatMap((id) => COMMANDS[id].keys);
  expect(all.filter((key, at) => all.indexOf(key) !== at)).toEqual([]);
});
