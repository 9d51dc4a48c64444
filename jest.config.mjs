/** One Jest run for all workspaces; TypeScript is stripped by swc, workspace imports go to the sources. */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/packages', '<rootDir>/apps'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  modulePathIgnorePatterns: ['/dist/', '/.cache/'],
  cacheDirectory: '<rootDir>/.cache/jest',
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
