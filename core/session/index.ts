export * from './steps';
export * from './session';
export * from './history';
export * from './refine';
export { colourUnder } from './colourUnder';
export { chanceOf, placementOf, whichPart } from './pieceTarget';
export { clayTarget } from './clayTarget';
export type { Target } from './target';
