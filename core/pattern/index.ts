export * from './grow';
