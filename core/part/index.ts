export * from './seat';
