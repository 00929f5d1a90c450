export * from './setting';
export * from './falloff';
export * from './card';
export * from './brush';
export * from './frame';
export * from './alpha';
export * from './source';
export * from './read';
