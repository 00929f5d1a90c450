export * from './font';
export * from './set';
