export * from './check';
export * from './margin';
export * from './ringLoss';
export * from './tones';
export * from './castChecks';
