/** Packs: the order of their brushes, and names of many. */
export { withBrushes, withoutBrushes, withoutGroup, type Place } from './order';
export { NAME_FIELDS, namesByPattern, type Named } from './names';
