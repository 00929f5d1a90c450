export * from './random';
export * from './noise';
