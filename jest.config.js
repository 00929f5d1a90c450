/** @type {import('jest').Config} */
export default {
  // Tests run as plain modules: in Jest's own sandbox every use of a global is so slow that number work takes twenty
  // times as long.
  runner: 'jest-light-runner',
  transform: {},
  extensionsToTreatAsEsm: ['.ts'],
  testMatch: ['<rootDir>/{core,server,demo,web,scripts,contract}/**/*.test.ts'],
  setupFilesAfterEnv: ['<rootDir>/scripts/sameBytes.ts'],
  testTimeout: 60000,
  // In one process: an error that can't be sent from worker to worker was seen to hang the run.
  maxWorkers: 1,
};
