export * from './form';
export * from './resolve';
export * from './dabFrame';
