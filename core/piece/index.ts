export * from './height';
export * from './places';
