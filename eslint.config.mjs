import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/dist/**', 'node_modules/**', '.data/**', '.cache/**', 'test-results/**'] },
  ...tseslint.configs.strictTypeChecked.map((config) => ({ ...config, files: ['**/*.ts', '**/*.tsx'] })),
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: {
      parserOptions: {
        project: [
          'packages/core/tsconfig.json',
          'packages/core/cli/tsconfig.json',
          'packages/content/tsconfig.json',
          'packages/contracts/tsconfig.json',
          'apps/server/tsconfig.json',
          'apps/devices/tsconfig.json',
          'apps/web/tsconfig.json',
          'e2e/tsconfig.json',
          'tsconfig.tests.json',
        ],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      '@typescript-eslint/no-extraneous-class': 'off',
      '@typescript-eslint/no-unnecessary-condition': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unnecessary-type-parameters': 'off',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      // Request bodies are classes for their decorators only; everywhere else they are plain shapes.
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      '@typescript-eslint/no-misused-spread': 'off',
      'no-console': 'error',
      // There are no enums, so what is checked of them costs time and finds nothing.
      'no-restricted-syntax': ['error', { selector: 'TSEnumDeclaration', message: 'Use a union of texts.' }],
      '@typescript-eslint/no-unsafe-enum-assignment': 'off',
      '@typescript-eslint/no-unsafe-enum-comparison': 'off',
      // A third of the linter's time; the editor strikes out what is deprecated.
      '@typescript-eslint/no-deprecated': 'off',
      // What belongs together is one object; what answers one question is one file.
      'max-params': ['error', 4],
      'max-lines': ['error', 500],
      'max-lines-per-function': ['error', { max: 90, skipComments: true, skipBlankLines: true }],
    },
  },
  {
    files: ['apps/web/**/*.tsx', 'apps/web/**/*.ts'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // Nest hands over the parts of a request one by one.
    files: [
      'apps/server/src/**/*.controller.ts',
      'apps/server/src/**/*.module.ts',
      'apps/server/src/**/*.ts',
    ],
    rules: { 'max-params': 'off' },
  },
  {
    files: ['**/*.test.ts', 'apps/server/test/**', 'e2e/**'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
      // The columns of a table of cases.
      'max-params': 'off',
      'max-lines-per-function': 'off',
    },
  },
);
