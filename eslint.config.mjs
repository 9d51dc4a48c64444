import imports from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** Arrows go one way: web -> contract <- server, all of them -> core, core -> nothing of ours. */
const forbid = (patterns) => ({ 'no-restricted-imports': ['error', { patterns }] });
const CORE_FORBIDS = [
  {
    group: ['@schmelz/*', 'node:*', 'react', 'koa', 'sequelize'],
    message: 'The core stands alone: no interface, no Node, no other workspace.',
  },
];
const CONTRACT_FORBIDS = [
  {
    group: ['@schmelz/server*', '@schmelz/web*', 'node:*', 'react', 'koa'],
    message: 'The contract knows only the core.',
  },
];
const SERVER_FORBIDS = [
  {
    group: ['@schmelz/web*', 'react', '@schmelz/*/*', '!@schmelz/contract/field'],
    message: 'The server knows contract and core by their public face.',
  },
];
const WEB_FORBIDS = [
  {
    group: ['@schmelz/server*', '@schmelz/*/*', 'node:*', 'koa', 'sequelize'],
    message: 'The application knows contract and core by their public face.',
  },
];

/** Stations of the line stand beside each other: what two of them share is in shell, counting, ways or drawing. */
const STATIONS = ['lead', 'molds', 'pour', 'trim', 'paint', 'bake', 'finish'];
const stationsApart = STATIONS.map((station) => ({
  files: [`apps/web/src/stations/${station}/**/*.{ts,tsx}`],
  ignores: ['**/*.test.tsx'],
  rules: forbid([
    ...WEB_FORBIDS,
    {
      group: STATIONS.filter((other) => other !== station).map((other) => `../${other}/*`),
      message: 'A station does not lean on another one.',
    },
  ]),
}));

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '.cache/**', '**/.cache/**', 'data/**', '.mutants/**'] },
  ...tseslint.configs.recommended,
  {
    plugins: { 'import-x': imports },
    settings: { 'import-x/extensions': ['.ts', '.tsx', '.mjs'] },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: ['error', 'always'],
      'no-empty': ['error', { allowEmptyCatch: false }],
      'max-lines': ['error', { max: 420, skipBlankLines: true, skipComments: true }],
      // The formatter breaks code at 120; what it cannot break is a sentence, a class list or a path.
      'max-len': [
        'error',
        { code: 120, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreRegExpLiterals: true },
      ],
      // A file that needs one that needs it is two halves of one thought.
      'import-x/no-cycle': ['error', { ignoreExternal: true }],
      'no-warning-comments': ['error', { terms: ['prettier-ignore'], location: 'anywhere' }],
    },
  },
  {
    files: ['**/*.cjs'],
    rules: { '@typescript-eslint/no-require-imports': 'off' },
    languageOptions: { globals: globals.node },
  },
  { files: ['scripts/**', '*.mjs'], languageOptions: { globals: globals.node } },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...forbid(CORE_FORBIDS),
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Pass a seed.' },
        { object: 'Date', property: 'now', message: 'Pass the time.' },
      ],
    },
  },
  { files: ['packages/contract/src/**/*.ts'], rules: forbid(CONTRACT_FORBIDS) },
  { files: ['apps/server/src/**/*.ts'], rules: forbid(SERVER_FORBIDS) },
  {
    files: ['apps/web/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.tsx', 'apps/web/src/test/**'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      'react-hooks/incompatible-library': 'off', // no React compiler is used
      ...forbid(WEB_FORBIDS),
    },
  },
  ...stationsApart,
);
