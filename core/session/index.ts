export * from './session';
