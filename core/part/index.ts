export * from './seat';
export * from './measure';
export { reduced } from './budget';
export { cleaned } from './cleaned';
export { isClosed, withBack, type Back } from './back';
export { componentAt, lassoed, type Lasso } from './region';
export { conformed, groundUnder, type Ground, type Standing } from './conform';
export { crossings } from './crossings';
export { partReport, seatedExtents, type PartReport } from './report';
