export * from './step';
export * from './run';
