import globals from 'globals';
import svelte from 'eslint-plugin-svelte';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
  { ignores: ['build', '.svelte-kit', 'node_modules', 'static', 'failures'] },
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      // The application is served from the root only.
      'svelte/no-navigation-without-resolve': 'off',
      // The type check says it, and more of it.
      '@typescript-eslint/no-unused-vars': 'off',
      eqeqeq: 'error',
      'no-console': 'error',
      'no-var': 'error',
      'prefer-const': 'error',
    },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
    rules: {
      'svelte/no-at-html-tags': 'error',
      // Props are destructured together; some of them are bindable.
      'prefer-const': 'off',
      'svelte/prefer-const': ['error', { destructuring: 'all', excludedRunes: ['$props', '$derived'] }],
      // Maps inside a derivation are local to it.
      'svelte/prefer-svelte-reactivity': 'off',
    },
  },
  {
    files: ['src/core/**/*.ts'],
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'navigator',
        'localStorage',
        'process',
        'Buffer',
      ],
    },
  },
  {
    files: ['src/**/*.ts', 'src/**/*.svelte', 'cli/**'],
    ignores: ['**/*.test.ts', 'src/core/tables/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'BinaryExpression[operator=/==/] > Literal[value=/^20\\d\\d$/]',
          message:
            'What changed with an edition is in the tables, or asked by since() of tables/editions.ts.',
        },
        {
          selector:
            'CallExpression[callee.property.name="localeCompare"][callee.object.property.name=/^(at|opened)$/]',
          message: 'Moments are compared by units/time.ts: as text a part of a second comes before none.',
        },
      ],
    },
  },
  {
    files: ['src/lib/**', 'src/routes/**', 'cli/**'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['**/job/commands.ts'],
              importNames: ['run'],
              message: 'Commands run behind the gates: use runGuarded from records/gates.ts.',
            },
            {
              group: ['**/boxes/steps.ts'],
              importNames: ['stepsFor'],
              message: 'Steps in a box are behind a gate: use stepsIn from records/gates.ts.',
            },
          ],
        },
      ],
    },
  },
  { files: ['cli/**', 'scripts/**', 'tests/**'], rules: { 'no-console': 'off' } },
);
