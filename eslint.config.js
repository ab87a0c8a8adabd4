import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import regexp from 'eslint-plugin-regexp';
import hooks from 'eslint-plugin-react-hooks';
import { defineConfig, globalIgnores } from 'eslint/config';
import globals from 'globals';
import tseslint from 'typescript-eslint';

export default defineConfig(
  globalIgnores([
    'dist',
    'node_modules',
    'data',
    'data-demo',
    'workspace',
    'test-results',
    'playwright-report',
  ]),
  js.configs.recommended,
  {
    // No expression may take more than linear time over what a file or a request holds.
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'certain' }],
      'regexp/no-super-linear-move': ['error', { report: 'certain' }],
    },
  },
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [tseslint.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      // Props are written as methods for their looser variance and never use `this`.
      '@typescript-eslint/unbound-method': 'off',
      // Typed arrays hold enum values as plain numbers.
      '@typescript-eslint/no-unsafe-enum-comparison': 'off',
      // Typed arrays are read within their bounds; the index type cannot say so.
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': [
        'error',
        {
          argsIgnorePattern: '^_',
          varsIgnorePattern: '^_',
          destructuredArrayIgnorePattern: '^_',
          ignoreRestSiblings: true,
        },
      ],
      'max-lines': ['error', { max: 400, skipBlankLines: false }],
    },
  },
  { files: ['web/**/*.tsx', 'web/**/*.ts'], extends: [hooks.configs.flat['recommended-latest']] },
  { files: ['**/*.js', '**/*.mjs'], languageOptions: { globals: { ...globals.node, ...globals.browser } } },
  {
    // What these read is short and has no runs of blanks: figures of at most 200 characters, typed texts squeezed.
    files: [
      'core/tape/**/*.ts',
      'core/records/cells.ts',
      'core/records/lists-in-cells.ts',
      'scripts/test.mjs',
    ],
    rules: { 'regexp/no-super-linear-backtracking': 'off', 'regexp/no-super-linear-move': 'off' },
  },
  prettier,
);
