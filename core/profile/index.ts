export * from './cut';
export * from './measures';
export * from './detail';
