export * from './random';
export * from './noise';
export * from './wrapped';
