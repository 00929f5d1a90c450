/** The unit that a scan's file is most likely in, from its largest extent in units of the file. */
import type { ScanUnit } from '#core/settings';

/** Things that are scanned are between a coin and a room: larger numbers are of a smaller unit. */
export function guessUnit(extent: number): ScanUnit {
  if (extent < 5) return 'm';
  return extent < 5000 ? 'mm' : 'µm';
}
