// The compiled loops. Each has a plain twin of the same name under core/sculpt/plain, which says what it does.
export { leavesInSphere, gather } from './gather';
export { footing } from './footing';
export { weigh } from './weigh';
export { repeat, wrap, stencil } from './forms';
export { push, pushOut, inflate, crease, meanHeight, level, carry, relax, shift, paintMask } from './actions';
export { refit, renew } from './renew';
