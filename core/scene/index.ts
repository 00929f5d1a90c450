export * from './piece';
export * from './pieces';
export * from './snapshot';
export * from './pickPiece';
export * from './merge';
export * from './joined';
export * from './joinedTo';
