export * from './room';
