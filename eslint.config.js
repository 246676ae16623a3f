import js from '@eslint/js';
import vue from 'eslint-plugin-vue';
import globals from 'globals';
import ts from 'typescript-eslint';
import vueParser from 'vue-eslint-parser';

/** What a part may not import: core knows nobody, web and server know core, the stand-in makes bytes and knows no part. */
const forbid = (...patterns) => ({
  'no-restricted-imports': ['error', { patterns: patterns.map((group) => ({ group: [group], message: 'crosses a boundary of the architecture' })) }],
});
const others = (own) => ['api', 'core', 'server', 'web', 'standin', 'launch'].filter((name) => name !== own).map((name) => `@fadenweg/${name}`);
/** Rooms of the server from the ground up: each may know those before it, none behind it. */
const ROOMS = [
  'database',
  'platform',
  'evidence',
  'kept',
  'weaving',
  'rollups',
  'declared',
  'changes',
  'explaining',
  'strands',
  'find',
  'live',
  'indexing',
  'looks',
  'gathering',
  'jobs',
  'rounds',
  'against',
  'faults',
  'shapes',
  'calls',
  'data',
  'unusual',
  'runbooks',
  'overview',
];
const serverRoom = (room, place) => ({
  files: [`packages/server/src/${room}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: forbid(
    ...others('server').filter((name) => !['@fadenweg/core', '@fadenweg/api'].includes(name)),
    ...ROOMS.slice(place + 1).flatMap((above) => [`../${above}/*`, `../../${above}/*`]),
    '**/server.ts',
    // answers leave by one door, in the platform: nothing else is given a response
    ...(room === 'platform' ? [] : ['express']),
  ),
});
/** What a call may reach is made for whoever asks: its routes take no access but theirs. */
const routes = {
  files: ['packages/server/src/**/*-routes.ts'],
  rules: {
    'no-restricted-syntax': ['error', { selector: "MemberExpression[object.name='Access']", message: 'a call has the access of whoever asks' }],
  },
};
const node = ['node:*', '/fs', '/os', '/worker_threads', '/child_process'];

export default ts.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'data/**', '.data/**', 'bench/results/**', 'coverage/**', '**/*.generated.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    languageOptions: { globals: { ...globals.es2023 } },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      eqeqeq: 'error',
      'no-control-regex': 'off',
      'max-lines': ['warn', { max: 350, skipBlankLines: true, skipComments: true }],
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/multi-word-component-names': 'error',
      'vue/no-v-html': 'error',
    },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parser: vueParser, parserOptions: { parser: ts.parser }, globals: { ...globals.browser } },
    rules: { 'no-undef': 'off' },
  },
  { files: ['packages/core/**/*.ts'], rules: forbid(...node, ...others('core')) },
  {
    files: ['packages/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-globals': ['error', 'process', 'Buffer', 'window', 'document', 'fetch', 'setTimeout'] },
  },
  { files: ['packages/standin/**/*.ts'], rules: forbid(...others('standin')) },
  {
    files: ['packages/web/**/*.{ts,vue}'],
    rules: forbid(...node, ...others('web').filter((name) => !['@fadenweg/core', '@fadenweg/api'].includes(name)), '@fadenweg/core/src/*'),
  },
  {
    files: ['packages/server/**/*.ts'],
    ignores: ['**/*.test.ts', '**/testing/**'],
    rules: forbid(...others('server').filter((name) => !['@fadenweg/core', '@fadenweg/api'].includes(name))),
  },
  ...ROOMS.map(serverRoom),
  routes,
  {
    files: [
      'packages/server/**/*.ts',
      'packages/launch/**/*.ts',
      'packages/standin/**/*.ts',
      'e2e/**/*.ts',
      'bench/**/*.ts',
      '*.js',
      '**/*.mjs',
      '**/*.test.ts',
    ],
    languageOptions: { globals: { ...globals.node } },
  },
);
