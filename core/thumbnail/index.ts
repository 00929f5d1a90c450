export * from './brushThumbnail';
export * from './strip';
export * from './shade';
