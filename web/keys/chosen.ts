/** The key of a command, as it is now; what shows it follows a change. */
import { usePreferences } from '../stores/preferences';
import type { CommandId } from './commands';
import { keyName, keysOf } from './keymap';

/** Empty for a command without a key. */
export function keyOf(id: CommandId): string {
  return keyName(keysOf(id, usePreferences().now.keys)[0] ?? '');
}

/** What a hint says behind its name: " (D)", or nothing. */
export function inHint(id: CommandId): string {
  const key = keyOf(id);
  return key && ` (${key})`;
}
