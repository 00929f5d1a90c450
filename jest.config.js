/** @type {import('jest').Config} */
export default {
  // Tests run in plain workers: in Jest's own sandbox every use of a global is so slow that number work takes twenty times as long.
  runner: 'jest-light-runner/child-process',
  transform: {},
  extensionsToTreatAsEsm: ['.ts'],
  testMatch: ['<rootDir>/{core,server,demo,web,scripts}/**/*.test.ts'],
  testTimeout: 60000,
  maxWorkers: 2,
};
