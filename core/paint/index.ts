export * from './texture';
export * from './atlas';
export * from './texels';
export * from './paintStroke';
export * from './padding';
