export * from './heights';
export * from './tones';
