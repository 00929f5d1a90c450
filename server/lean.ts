/**
 * A process that keeps little garbage: V8 would let a heap grow to several times what is in use before it clears up,
 * and what packs are made of goes through in large pieces.
 */
import { setFlagsFromString } from 'node:v8';

/** How much a heap may grow before it is cleared up, per cent. Read at each clearing; an engine may not know it. */
const GROWS = 20;

setFlagsFromString(`--heap-growing-percent=${GROWS}`);
