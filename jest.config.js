export default {
  testEnvironment: 'node',
  transform: { '^.+\\.tsx?$': ['@swc/jest'] },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  testMatch: ['<rootDir>/{core,contract,server,web,cli,demo,bench}/**/*.test.{ts,tsx}'],
  testTimeout: 300000,
  setupFiles: ['./scripts/test-seed.mjs', './scripts/test-dom.mjs'],
  globalSetup: './scripts/test-threads.mjs',
  globalTeardown: './scripts/test-ended.mjs',
  maxWorkers: '100%',
  // A worker keeps the modules of each test file that it has run; with all of them it takes twice as long over the last as over the first.
  workerIdleMemoryLimit: '700MB',
};
