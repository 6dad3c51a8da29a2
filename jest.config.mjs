const swc = [
  '<rootDir>/scripts/lib/jestTransform.cjs',
  {
    jsc: {
      parser: { syntax: 'typescript', decorators: true, tsx: true },
      transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false },
      target: 'es2022',
      keepClassNames: true,
    },
    module: { type: 'commonjs' },
    sourceMaps: 'inline',
  },
];

const shared = {
  transform: {
    '/node_modules/.+\\.m?js$': ['@swc/jest', swc[1]],
    '^.+\\.(t|j)sx?$': swc,
    '^.+\\.mjs$': swc,
  },
  // Packages published as ES modules only run here as CommonJS, so they are transformed too.
  transformIgnorePatterns: [
    '/node_modules/(?!(@nestjs|file-type|load-esm|token-types|strtok3|uint8array-extras|nestjs-pino|@tokenizer|peek-readable)/)',
  ],
  moduleNameMapper: {
    '^(\\.{1,2}/.*)\\.js$': '$1',
    '^@heathstep/core$': '<rootDir>/packages/core/src/index.ts',
    '^@heathstep/core/simulate$': '<rootDir>/packages/core/src/simulate/index.ts',
    '^@heathstep/core/lab$': '<rootDir>/packages/core/src/lab/index.ts',
    '^@heathstep/content$': '<rootDir>/packages/content/src/index.ts',
    '^@heathstep/contracts$': '<rootDir>/packages/contracts/src/index.ts',
    '^@heathstep/contracts/views$': '<rootDir>/packages/contracts/src/views.ts',
  },
  testPathIgnorePatterns: ['/node_modules/', '/dist/'],
  modulePathIgnorePatterns: ['/dist/'],
};

export default {
  testTimeout: 60_000,
  projects: [
    {
      ...shared,
      displayName: 'core',
      testMatch: [
        '<rootDir>/packages/**/*.test.ts',
        '<rootDir>/apps/web/**/*.test.ts',
        '<rootDir>/apps/devices/**/*.test.ts',
        '<rootDir>/scripts/**/*.test.ts',
      ],
    },
    {
      ...shared,
      displayName: 'api',
      testMatch: ['<rootDir>/apps/server/**/*.test.ts'],
      globalSetup: '<rootDir>/apps/server/test/globalSetup.mjs',
      globalTeardown: '<rootDir>/apps/server/test/globalTeardown.mjs',
      setupFiles: ['<rootDir>/apps/server/test/environment.ts'],
    },
  ],
};
