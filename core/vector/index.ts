export * from './vector';
