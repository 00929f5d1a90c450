export * from './stage';
export * from './change';
export * from './timeline';
export * from './following';
