export * from './clay';
export * from './history';
export * from './levels';
