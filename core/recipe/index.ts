export * from './step';
export * from './run';
export * from './mend';
