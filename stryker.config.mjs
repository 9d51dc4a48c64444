/** How the mutation tester plants mistakes; what it plants them in, and which tests it asks: scripts/mutants.mjs. */
export default {
  testRunner: 'jest',
  jest: { configFile: 'jest.config.mjs' },
  plugins: ['@stryker-mutator/jest-runner'],
  coverageAnalysis: 'perTest',
  // Words are for people: they are looked at, not tested letter by letter.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignorePatterns: ['/data', '/docs/screenshots', '/e2e', '/test-results', '**/dist', '/.cache'],
  tempDirName: '.mutants',
  reporters: ['json'],
  jsonReporter: { fileName: '.cache/mutants.json' },
  concurrency: 2,
  timeoutMS: 20_000,
  // All tests of an area, one after another, beside other work.
  dryRunTimeoutMinutes: 40,
  allowEmpty: true,
};
