export * from './resolve';
export * from './dabFrame';
