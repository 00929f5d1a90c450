export * from './segment';
export * from './pickOut';
export * from './grabCut';
