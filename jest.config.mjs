// One Jest, four projects: the pure core and what has no page, components in a document without a browser, the server
// on a real database, the interface in a real browser.
const swc = {
  jsc: {
    parser: { syntax: 'typescript', decorators: true },
    transform: { legacyDecorator: true, decoratorMetadata: true },
    target: 'es2022',
    keepClassNames: true,
  },
  module: { type: 'es6' },
};
const components = {
  ...swc,
  jsc: {
    ...swc.jsc,
    parser: { syntax: 'typescript', tsx: true },
    transform: { react: { runtime: 'automatic' } },
  },
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
    {
      ...common,
      displayName: 'components',
      testEnvironment: 'jsdom',
      testEnvironmentOptions: { customExportConditions: ['@yunta/source', 'browser', 'node', 'node-addons'] },
      extensionsToTreatAsEsm: ['.ts', '.tsx'],
      transform: { '^.+\\.tsx?$': ['@swc/jest', components] },
      moduleNameMapper: { '\\.css$': '<rootDir>/apps/web/src/ui/testing/class-names.ts' },
      setupFiles: ['<rootDir>/apps/web/src/ui/testing/browser-parts.ts'],
      testMatch: ['<rootDir>/apps/web/**/*.test.tsx'],
    },
    { ...common, displayName: 'server', testMatch: ['<rootDir>/apps/server/**/*.test.ts'] },
    { ...common, displayName: 'browser', testMatch: ['<rootDir>/e2e/**/*.test.ts'] },
  ],
};
