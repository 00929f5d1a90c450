export * from './form';
export { isShaped, shapedGround, shapedPicture } from './inside';
export * from './resolve';
export * from './parts';
export * from './paint';
export * from './dabFrame';
