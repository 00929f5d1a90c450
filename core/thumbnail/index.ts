export * from './brushThumbnail';
export * from './strip';
export * from './shade';
export { meshPicture } from './meshPicture';
