const swc = ['@swc/jest', { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'es6' } }];
const base = {
  rootDir: import.meta.dirname,
  extensionsToTreatAsEsm: ['.ts'],
  setupFiles: ['<rootDir>/tools/property-tests.ts'],
  transform: { '\\.ts$': swc },
  modulePathIgnorePatterns: ['/dist/', '<rootDir>/data/'],
  testEnvironmentOptions: { customExportConditions: ['source', 'node', 'node-addons'] },
};

export default {
  projects: [
    { ...base, displayName: 'unit', testMatch: ['<rootDir>/packages/{core,standin}/src/**/*.test.ts'] },
    {
      ...base,
      displayName: 'page',
      testMatch: ['<rootDir>/packages/web/src/**/*.test.ts'],
      extensionsToTreatAsEsm: ['.ts', '.vue'],
      moduleFileExtensions: ['ts', 'js', 'mjs', 'json', 'vue'],
      transform: { ...base.transform, '\\.vue$': '<rootDir>/tools/vue-transform.mjs' },
      testEnvironment: 'jsdom',
      testEnvironmentOptions: { customExportConditions: ['source', 'browser'] },
      globals: { __VUE_OPTIONS_API__: true, __VUE_PROD_DEVTOOLS__: false, __VUE_PROD_HYDRATION_MISMATCH_DETAILS__: false },
    },
    { ...base, displayName: 'server', testMatch: ['<rootDir>/packages/{server,launch}/src/**/*.test.ts'] },
    { ...base, displayName: 'browser', testMatch: ['<rootDir>/e2e/**/*.test.ts'] },
  ],
  testTimeout: 120000,
};
