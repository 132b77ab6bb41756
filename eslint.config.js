import js from '@eslint/js';
import angular from 'angular-eslint';
import compat from 'eslint-plugin-compat';
import tseslint from 'typescript-eslint';

/** Imports go one way: core ← contract ← formats ← server, and ← web. */
const oneWay = (...forbidden) => [
  'error',
  {
    patterns: forbidden.map((group) => ({
      group: [group, `${group}/*`],
      message: 'Imports go one way: core ← contract ← formats ← server, and ← web.',
    })),
  },
];

/** What a student's way in loads: whoever imports all of the core has it come along with the first screen. */
const byFolder = ([level, options]) => [
  level,
  {
    ...options,
    paths: [
      {
        name: '@cuaderno/core',
        message: 'Import from a folder of it, as from @cuaderno/core/ink.',
      },
    ],
  },
];

const NODE = ['node:*', 'fs', 'path', 'crypto', 'worker_threads'];

export default tseslint.config(
  {
    ignores: ['**/dist/**', '**/.angular/**', '**/node_modules/**', '**/migrations/**', 'data/**'],
  },
  {
    files: ['**/*.{ts,js,mjs,cjs}'],
    extends: [js.configs.recommended, ...tseslint.configs.recommended],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/explicit-module-boundary-types': 'error',
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    files: ['apps/web/src/app/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      // The address of a record names the page to begin at.
      '@angular-eslint/no-input-rename': ['error', { allowedNames: ['page'] }],
      'no-restricted-syntax': [
        'error',
        {
          selector:
            "ClassDeclaration:has(> Decorator[expression.callee.name='Component']) CallExpression[callee.name='inject'][arguments.0.name=/^(Api|HttpClient)$/]",
          message: 'A component asks a service: see apps/web/src/app/api.',
        },
        {
          selector: "ImportDeclaration[source.value='primeng/select'][importKind='value']",
          message:
            'A list is imported as LIST from apps/web/src/app/ui/list: it stays with its field.',
        },
      ],
    },
  },
  {
    files: ['apps/web/src/app/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: {
      '@angular-eslint/template/label-has-associated-control': [
        'error',
        { controlComponents: ['cua-date-field', 'p-select', 'p-checkbox', 'p-radiobutton'] },
      ],
      // A dialog hears keys wherever the focus is in it.
      '@angular-eslint/template/interactive-supports-focus': ['error', { allowList: ['dialog'] }],
      // In a dialog it is what its first field is for (HTML, 6.6.7).
      '@angular-eslint/template/no-autofocus': 'off',
    },
  },
  {
    // What the browsers that the README names don't have, as far as the tables of their makers say.
    files: ['apps/web/src/**/*.ts', 'packages/core/src/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/testing/**'],
    plugins: { compat },
    settings: {
      // Its tables know an API `Ink`, for which the rule takes any `ink.` of ours; nothing uses that API.
      polyfills: ['Ink'],
      targets: [
        'chrome >= 131',
        'edge >= 131',
        'firefox >= 128',
        'safari >= 18.1',
        'ios_saf >= 18.1',
      ],
    },
    rules: { 'compat/compat': 'error' },
  },
  {
    // Read by browsers that read nothing newer.
    files: ['apps/web/public/*.js'],
    rules: { 'no-var': 'off' },
    languageOptions: {
      ecmaVersion: 5,
      sourceType: 'script',
      globals: { document: 'readonly', location: 'readonly', window: 'readonly' },
    },
  },
  {
    files: ['packages/core/**/*.ts'],
    rules: {
      'no-restricted-imports': oneWay(
        '@cuaderno/contract',
        '@cuaderno/formats',
        '@cuaderno/server',
        '@cuaderno/web',
        '@angular',
        ...NODE,
      ),
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'Buffer'],
    },
  },
  {
    files: ['packages/contract/**/*.ts'],
    rules: {
      'no-restricted-imports': byFolder(
        oneWay('@cuaderno/formats', '@cuaderno/server', '@cuaderno/web', '@angular', ...NODE),
      ),
    },
  },
  {
    files: ['packages/formats/**/*.ts'],
    ignores: ['**/*.spec.ts', 'packages/formats/src/testing/**'],
    rules: {
      'no-restricted-imports': oneWay('@cuaderno/server', '@cuaderno/web', '@angular', ...NODE),
    },
  },
  {
    files: ['apps/server/**/*.ts'],
    rules: { 'no-restricted-imports': oneWay('@cuaderno/web', '@angular') },
  },
  {
    files: ['apps/web/**/*.ts'],
    rules: { 'no-restricted-imports': byFolder(oneWay('@cuaderno/server', ...NODE)) },
  },
  {
    files: [
      '**/*.mjs',
      '**/*.cjs',
      'bench/**',
      'e2e/**',
      'apps/web/src/main.ts',
      'eslint.config.js',
    ],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        module: 'writable',
        require: 'readonly',
        URL: 'readonly',
        setTimeout: 'readonly',
        Buffer: 'readonly',
        performance: 'readonly',
        fetch: 'readonly',
        jasmine: 'readonly',
      },
    },
    rules: {
      'no-console': 'off',
      '@typescript-eslint/no-require-imports': 'off',
      '@typescript-eslint/explicit-module-boundary-types': 'off',
    },
  },
);
