export * from './paper';
export * from './find';
export * from './outline';
export * from './hands';
export * from './cast';
