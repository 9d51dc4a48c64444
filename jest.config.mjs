/** One Jest run for all workspaces; TypeScript is stripped by swc, workspace imports go to the sources. */
const shared = {
  modulePathIgnorePatterns: ['/dist/', '/.cache/'],
  moduleNameMapper: {
    '^@schmelz/core$': '<rootDir>/packages/core/src/index.ts',
    '^@schmelz/contract$': '<rootDir>/packages/contract/src/index.ts',
    '^@schmelz/contract/openapi$': '<rootDir>/packages/contract/src/openapi.ts',
  },
  transform: {
    '^.+\\.(ts|tsx|mjs|js)$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'commonjs' },
      },
    ],
  },
  transformIgnorePatterns: ['/node_modules/(?!(dinero\\.js|@sodaru|@koa|date-fns|@seriousme)/)'],
};

export default {
  cacheDirectory: '<rootDir>/.cache/jest',
  projects: [
    {
      ...shared,
      displayName: 'node',
      testEnvironment: 'node',
      testMatch: ['<rootDir>/packages/**/*.test.ts', '<rootDir>/apps/server/**/*.test.ts'],
    },
    {
      ...shared,
      displayName: 'browser',
      testEnvironment: '<rootDir>/apps/web/jest-environment.cjs',
      testMatch: ['<rootDir>/apps/web/**/*.test.ts', '<rootDir>/apps/web/**/*.test.tsx'],
    },
  ],
};
