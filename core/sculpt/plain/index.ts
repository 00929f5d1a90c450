/**
 * The plain twins of the compiled loops: what a dab does, to be read, and the measure the compiled ones are held to.
 */
import type { Loops } from '../loops';
import { carry, crease, inflate, level, meanHeight, paintMask, push, pushOut, relax, shift } from './actions';
import { repeat, stencil, wrap } from './forms';
import { footing } from './footing';
import { gather } from './gather';
import { refit, renew } from './renew';
import { weigh } from './weigh';

export const plainLoops: Loops = {
  footing,
  gather,
  weigh,
  repeat,
  wrap,
  stencil,
  push,
  pushOut,
  inflate,
  crease,
  meanHeight,
  level,
  carry,
  relax,
  shift,
  paintMask,
  renew,
  refit,
};
