export * from './piece';
export * from './pieces';
