/** How deep JSON nests and how many values it holds, known before anything is made of it. */
import { Problem } from '../problem';

const MOST_DEPTH = 48;
const MOST_VALUES = 3_000_000;

/** Follows brackets and commas outside of strings. */
export function refuseUnwieldy(bytes: Uint8Array): void {
  let depth = 0;
  let values = 0;
  for (let i = 0; i < bytes.length; i++) {
    switch (bytes[i]) {
      case 0x22:
        i = endOfString(bytes, i + 1);
        break;
      case 0x5b:
      case 0x7b:
        if (++depth > MOST_DEPTH)
          throw new Problem(
            422,
            'invalid',
            `The request nests deeper than ${MOST_DEPTH} levels; nothing that is kept does.`,
          );
        break;
      case 0x5d:
      case 0x7d:
        depth--;
        break;
      case 0x2c:
        if (++values > MOST_VALUES)
          throw new Problem(
            422,
            'invalid',
            `The request holds more than ${MOST_VALUES / 1e6} million values; nothing that is kept does.`,
          );
    }
  }
}

/** Where its closing quote is. */
function endOfString(bytes: Uint8Array, from: number): number {
  let i = from;
  while (i < bytes.length && bytes[i] !== 0x22) i += bytes[i] === 0x5c ? 2 : 1;
  return i;
}
