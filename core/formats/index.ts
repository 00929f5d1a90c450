export * from './exr';
export * from './tiff';
export * from './meshFile';
export * from './facts';
