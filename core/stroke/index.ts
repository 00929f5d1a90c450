export * from './walk';
export * from './scatter';
export * from './record';
