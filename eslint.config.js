import js from '@eslint/js';
import tseslint from 'typescript-eslint';
import reactHooks from 'eslint-plugin-react-hooks';

/** Forbids imports so that the arrows between packages run one way. */
const arrows = (files, names) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: names.map((name) => ({
          group: [name],
          message: 'The arrows run one way: core <- contract <- server, web, cli.',
        })),
      },
    ],
  },
});

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/dist-types/**',
      'node_modules/**',
      'data/**',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  js.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [...tseslint.configs.strict],
    rules: {
      '@typescript-eslint/consistent-type-imports': 'off',
      '@typescript-eslint/no-extraneous-class': ['error', { allowWithDecorator: true }],
      'no-console': 'error',
    },
  },
  {
    files: ['apps/web/**/*.tsx', 'apps/web/**/*.ts'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    files: ['packages/core/src/**/*.ts', 'apps/**/*.ts', 'apps/**/*.tsx'],
    ignores: [
      'packages/core/src/furniture/families/**',
      'packages/core/src/document/migrate/**',
      '**/*.test.ts',
      '**/fixtures/**',
      '**/*.fixture.ts',
    ],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'Literal[value=/^(bed-platform|base-run)$/]',
          message:
            'No family is named outside its own file: ask the unit through its body, its skeleton or its family.',
        },
      ],
    },
  },
  {
    files: ['apps/web/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', '**/*.fixture.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: '@nestplank/contract',
              allowTypeImports: true,
              message: 'Its classes belong to the server: the page takes types of it, and values of its subpaths.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['apps/web/src/**/*.tsx'],
    ignores: ['**/*.test.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'Literal[value=/^(bed-platform|base-run)$/]',
          message:
            'No family is named outside its own file: ask the unit through its body, its skeleton or its family.',
        },
        {
          selector: "JSXAttribute[name.name='style'] > JSXExpressionContainer > ObjectExpression > Property > Literal",
          message: 'A style that is not computed is a class in the style sheet of its folder.',
        },
        {
          selector:
            "JSXOpeningElement[name.name='input'] > JSXAttribute[name.name='type'] > Literal[value=/^(checkbox|date)$/]",
          message: 'Boxes and days are kit/Check and kit/DateField.',
        },
        {
          selector: "JSXAttribute[name.name='role'] > Literal[value='tablist']",
          message: 'Tabs are kit/TabStrip.',
        },
      ],
    },
  },
  arrows(['packages/core/**'], ['@nestplank/*', 'node:*', 'react', 'react-dom', '@nestjs/*', '@mui/*']),
  arrows(
    ['packages/contract/**'],
    ['@nestplank/server', '@nestplank/web', '@nestplank/cli', 'node:*', 'react', '@mui/*'],
  ),
  arrows(
    ['packages/solids/**'],
    ['@nestplank/contract', '@nestplank/server', '@nestplank/web', '@nestplank/cli', 'node:*', 'react', '@mui/*'],
  ),
  arrows(['apps/server/**'], ['@nestplank/web', '@nestplank/cli', 'react', '@mui/*']),
  arrows(['apps/web/**'], ['@nestplank/server', '@nestplank/cli', 'node:*', '@nestjs/*']),
  arrows(['apps/cli/**'], ['@nestplank/server', '@nestplank/web', '@nestplank/contract', '@nestjs/*', 'react']),
  {
    files: ['scripts/**/*.mjs', 'demo/*.mjs', 'bench/**/*.mjs', 'eslint.config.js'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        performance: 'readonly',
        document: 'readonly',
        window: 'readonly',
        PointerEvent: 'readonly',
        MutationObserver: 'readonly',
        requestAnimationFrame: 'readonly',
      },
    },
  },
);
