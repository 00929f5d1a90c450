export * from './height';
export * from './places';
export * from './partHeights';
