export * from './edit';
export type { MaskShape } from './maskShape';
