/**
 * What was pressed, spelt as it is shown: "Ctrl+Shift+Z", "D", "[", "Esc", "Shift+3". A sign says by itself that Shift
 * is held; the Command key of a Mac counts as Ctrl.
 */
export interface Press {
  key: string;
  code: string;
  ctrlKey: boolean;
  metaKey: boolean;
  altKey: boolean;
  shiftKey: boolean;
}

const ALONE = ['Control', 'Shift', 'Alt', 'Meta', 'AltGraph', 'CapsLock', 'Dead', 'Process', 'Unidentified'];

/** Null for a key that means nothing by itself. */
export function pressed(e: Press): string | null {
  if (ALONE.includes(e.key)) return null;
  const command = e.ctrlKey || e.metaKey;
  // With Alt a Mac writes another letter than stands on the key.
  const printed = e.altKey && /^Key[A-Z]$/.test(e.code) ? e.code.slice(3) : e.key;
  // Shift turns a digit into a sign that each country has elsewhere.
  const digit = e.shiftKey && /^Digit\d$/.test(e.code) && !/^\d$/.test(e.key) ? e.code.slice(5) : null;
  const name = digit ?? (printed === 'Escape' ? 'Esc' : printed === ' ' ? 'Space' : printed);
  const letter = /^\p{L}$/u.test(name);
  const shift = e.shiftKey && (letter || digit !== null);
  return [
    ...(command ? ['Ctrl'] : []),
    ...(e.altKey && (letter || digit !== null || command) ? ['Alt'] : []),
    ...(shift ? ['Shift'] : []),
    letter ? name.toUpperCase() : name,
  ].join('+');
}
