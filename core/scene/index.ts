export * from './piece';
export * from './pieces';
export * from './kept';
export * from './pickPiece';
