// The compiled loops of the filters. Each has a plain twin in core/filter, which says what it does.
export { levels } from './levels';
export { median3 } from './median';
export { blurAcross, blurDown } from './blur';
export { resizeAcross, resizeDown } from './resize';
