export * from './picture';
export * from './pyramid';
export * from './sample';
export * from './measure';
export * from './raster';
