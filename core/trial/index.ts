export * from './sets';
