export * from './brushThumbnail';
export * from './shade';
