import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['reed', 'build/', '.svelte-kit/', 'node_modules/', 'data/', 'test-results/', 'playwright-report/'] },
  js.configs.recommended,
  ...ts.configs.recommendedTypeChecked,
  ...svelte.configs.recommended,
  {
    languageOptions: {
      globals: { ...globals.node, ...globals.browser },
      parserOptions: {
        projectService: { allowDefaultProject: ['*.js', '*.cjs', '.*.cjs'] },
        extraFileExtensions: ['.svelte'],
      },
    },
    rules: {
      'no-undef': 'off',
      'no-control-regex': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', ignoreRestSiblings: true }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/only-throw-error': [
        'error',
        { allow: [{ from: 'package', package: '@sveltejs/kit', name: ['Redirect_1', 'HttpError_1'] }] },
      ],
      'svelte/no-navigation-without-resolve': 'off',
      'svelte/require-each-key': 'error',
      'no-console': 'error',
      eqeqeq: 'error',
    },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser } },
    rules: {
      // svelte-check checks the types of templates; here the props of components cannot be resolved.
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
      // State is replaced, never changed in place.
      'svelte/prefer-svelte-reactivity': 'off',
    },
  },
  {
    files: ['src/**/*.ts'],
    ignores: ['**/*.test.ts', 'src/server/database/migrations/**'],
    rules: {
      'max-lines-per-function': ['error', { max: 60 }],
      '@typescript-eslint/max-params': ['error', { max: 4 }],
    },
  },
  { files: ['**/*.js', '**/*.cjs'], extends: [ts.configs.disableTypeChecked] },
  { files: ['src/cli/**', 'reed', 'scripts/**', 'training/**'], rules: { 'no-console': 'off' } },
);
