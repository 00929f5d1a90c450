export * from './check';
export * from './margin';
export * from './ringLoss';
