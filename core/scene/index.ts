export * from './piece';
export * from './pieces';
export * from './kept';
export * from './pickPiece';
export * from './merge';
export * from './joined';
export * from './joinedTo';
