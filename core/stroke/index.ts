export * from './walk';
export * from './scatter';
export * from './record';
export * from './symmetry';
export * from './steady';
