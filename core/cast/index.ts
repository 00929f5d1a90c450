export * from './heights';
export * from './tones';
export * from './undercut';
export * from './vector';
export * from './fitFrame';
export * from './castSlab';
