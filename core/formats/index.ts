export * from './exr';
export * from './tiff';
export * from './packedMesh';
export * from './meshFile';
export * from './facts';
export * from './png16';
export * from './paintSquare';
export { halfToFloat } from './half';
