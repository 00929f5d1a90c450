export * from './edit';
export { changeMask, changePlaces } from './change';
export type { MaskShape } from './maskShape';
