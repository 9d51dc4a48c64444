import { fileURLToPath } from 'node:url';

// The cases that tests draw are the same in every run; `npm run histories` draws new ones.
process.env.SCHMELZ_SEED ??= '20261201';
if (!process.env.JEST_WORKER_ID) console.error(`Seed of the random tests: SCHMELZ_SEED=${process.env.SCHMELZ_SEED}`);

/** One Jest run for all workspaces; TypeScript is stripped by swc, workspace imports go to the sources. */
const shared = {
  setupFiles: ['<rootDir>/scripts/seed.cjs'],
  // Looked up in the sandbox's global object they cost more than what they do: these models do little else.
  sandboxInjectedGlobals: ['Math', 'Number'],
  modulePathIgnorePatterns: ['/dist/', '/.cache/', '<rootDir>/.mutants/'],
  moduleNameMapper: {
    '^@schmelz/core$': '<rootDir>/packages/core/src/index.ts',
    '^@schmelz/worlds$': '<rootDir>/packages/worlds/src/index.ts',
    '^@schmelz/contract$': '<rootDir>/packages/contract/src/index.ts',
    '^@schmelz/contract/field$': '<rootDir>/packages/contract/src/schema/field.ts',
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

/** The mutation tester names the tests that it asks (scripts/mutants.mjs). */
const only = process.env.SCHMELZ_TESTS?.split(',').map((name) => `<rootDir>/${name}`);

const cacheDirectory = '<rootDir>/.cache/jest';
const globalSetup = '<rootDir>/scripts/before-jest.mjs';
const projects = [
  {
    ...shared,
    displayName: 'node',
    testEnvironment: 'node',
    testMatch: only ?? [
      '<rootDir>/packages/**/*.test.ts',
      '<rootDir>/apps/server/**/*.test.ts',
      '<rootDir>/scripts/*.test.ts',
    ],
  },
  {
    ...shared,
    displayName: 'browser',
    // By its whole path: the mutation tester does not know <rootDir>.
    testEnvironment: fileURLToPath(new URL('apps/web/jest-environment.cjs', import.meta.url)),
    testMatch: only ?? ['<rootDir>/apps/web/**/*.test.ts', '<rootDir>/apps/web/**/*.test.tsx'],
  },
];
const asked = process.env.SCHMELZ_TESTS?.startsWith('apps/web') ? 'browser' : 'node';

// The mutation tester wants one project, not a list: it puts its own environment over the one that is named.
export default only
  ? { cacheDirectory, testTimeout: 60_000, ...projects.find(({ displayName }) => displayName === asked) }
  : { cacheDirectory, globalSetup, projects };
