export * from './sets';
export * from './own';
