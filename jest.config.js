export default {
  testEnvironment: 'node',
  transform: { '^.+\\.tsx?$': ['@swc/jest'] },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  testMatch: ['<rootDir>/{core,contract,server,web,demo,bench}/**/*.test.ts'],
  testTimeout: 60000,
};
