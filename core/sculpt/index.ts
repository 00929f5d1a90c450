export * from './surface';
export * from './dab';
export * from './strokeSpan';
export * from './loops';
export { plainLoops } from './plain';
