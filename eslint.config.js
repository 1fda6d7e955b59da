import tseslint from 'typescript-eslint';
import vue from 'eslint-plugin-vue';
import vueParser from 'vue-eslint-parser';
import { house } from './scripts/lint/house.mjs';
import { typedParser } from './scripts/lint/types.mjs';

export default [
  {
    ignores: [
      '**/node_modules/',
      '**/dist/',
      'data/',
      'core/kernels/assembly/',
      'benchmarks/frozen/',
      '**/generated/',
      'test-results/',
    ],
  },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/essential'],
  {
    files: ['**/*.ts', '**/*.vue', '**/*.mjs'],
    plugins: { house },
    rules: {
      'house/direction': 'error',
      'house/declared': 'error',
      'house/addresses': 'error',
      'house/cycles': 'error',
      'no-undef': 'off',
      'vue/multi-word-component-names': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
    },
  },
  { files: ['**/*.vue'], languageOptions: { parser: vueParser, parserOptions: { parser: typedParser } } },
  { files: ['**/*.ts'], languageOptions: { parser: typedParser } },
  {
    files: ['**/*.ts', '**/*.vue'],
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts', 'core/testing/**'],
    plugins: { house },
    rules: { 'house/same-bits': 'error' },
  },
];
