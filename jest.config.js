export default {
  testEnvironment: 'node',
  transform: { '^.+\\.tsx?$': ['@swc/jest'] },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  testMatch: ['<rootDir>/{core,contract,server,web,cli,demo,bench}/**/*.test.{ts,tsx}'],
  testTimeout: 300000,
  setupFiles: ['./scripts/test-seed.mjs', './scripts/test-dom.mjs'],
  globalSetup: './scripts/test-threads.mjs',
  maxWorkers: '100%',
};
