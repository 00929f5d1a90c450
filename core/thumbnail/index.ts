export * from './brushThumbnail';
export * from './strip';
export * from './swatches';
export * from './shade';
export { meshPicture } from './meshPicture';
