export * from './exr';
export * from './tiff';
