export * from './guess';
