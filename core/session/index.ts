export * from './steps';
export * from './session';
export * from './history';
export * from './refine';
export { clayTarget, type Target } from './target';
