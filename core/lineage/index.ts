/** From a source to its casts, their brushes and packs, and back. */
export { familyOf, inRows, type Family, type Kin } from './family';
export { readByCast } from './readByCast';
