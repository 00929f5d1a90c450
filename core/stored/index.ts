export * from './collections';
export * from './heads';
