export * from './exr';
export * from './tiff';
export * from './keptMesh';
export * from './meshFile';
export * from './facts';
