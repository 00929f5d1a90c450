export * from './session';
export * from './topology';
