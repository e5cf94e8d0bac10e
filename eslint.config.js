import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['build/', '.svelte-kit/', 'node_modules/', 'data/', 'test-results/', 'playwright-report/'] },
  js.configs.recommended,
  ...ts.configs.recommendedTypeChecked,
  ...svelte.configs.recommended,
  {
    languageOptions: {
      globals: { ...globals.node, ...globals.browser },
      parserOptions: { projectService: { allowDefaultProject: ['*.js', '*.cjs', 'reed'] }, extraFileExtensions: ['.svelte'] },
    },
    rules: {
      'no-undef': 'off',
      'no-control-regex': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/only-throw-error': ['error', { allow: [{ from: 'package', package: '@sveltejs/kit', name: ['Redirect_1', 'HttpError_1'] }] }],
      'svelte/no-navigation-without-resolve': 'off',
      'svelte/require-each-key': 'error',
      'no-console': 'error',
      eqeqeq: 'error',
    },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  { files: ['src/cli/**', 'reed', 'scripts/**'], rules: { 'no-console': 'off' } },
);
