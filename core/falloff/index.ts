export * from './falloff';
export * from './curve';
