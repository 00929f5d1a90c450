// The compiled loops over texels: of dabs, of what smears and of layers seen as one.
export { gather, strongest } from './gather';
export { readFlat } from './picture';
export { apply } from './apply';
export { takeUp, settle, smear } from './smudge';
export { over, overAll, toWords, toBytes } from './layers';
