// One Jest, three projects: the pure core, the server on a real database, the interface in a real browser.
const swc = {
  jsc: {
    parser: { syntax: 'typescript', decorators: true },
    transform: { legacyDecorator: true, decoratorMetadata: true },
    target: 'es2022',
    keepClassNames: true,
  },
  module: { type: 'es6' },
};
const common = {
  testEnvironment: 'node',
  testEnvironmentOptions: { customExportConditions: ['@yunta/source', 'node', 'node-addons'] },
  extensionsToTreatAsEsm: ['.ts'],
  transform: { '^.+\\.ts$': ['@swc/jest', swc] },
};
export default {
  projects: [
    {
      ...common,
      displayName: 'unit',
      testMatch: [
        '<rootDir>/packages/**/*.test.ts',
        '<rootDir>/apps/cli/**/*.test.ts',
        '<rootDir>/apps/web/**/*.test.ts',
      ],
    },
    { ...common, displayName: 'server', testMatch: ['<rootDir>/apps/server/**/*.test.ts'] },
    { ...common, displayName: 'browser', testMatch: ['<rootDir>/e2e/**/*.test.ts'] },
  ],
};
