export * from './spaces';
export * from './drift';
export * from './pigment';
export * from './blend';
export * from './palette';
