import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import * as regexp from 'eslint-plugin-regexp';
import tseslint from 'typescript-eslint';

/** Workspaces that a workspace may not import from: one direction, `web → core` and `server → core`. */
const forbid = (...patterns) => ({ 'no-restricted-imports': ['error', { patterns }] });

/** What scripts of Node and those that run inside a page may use. */
const SCRIPT_GLOBALS = [
  'process',
  'console',
  'URL',
  'performance',
  'setTimeout',
  'fetch',
  'Buffer',
  'window',
  'document',
  'location',
  'requestAnimationFrame',
  'XMLHttpRequest',
  'innerWidth',
  'innerHeight',
  'cancelAnimationFrame',
  'Path2D',
  'FormData',
  'Blob',
];

/** What is missing without a secure context is asked for in `secure/` alone, where that is thought of. */
const SECURE_ONLY = {
  'no-restricted-properties': [
    'error',
    ...[
      ['navigator', 'clipboard'],
      ['navigator', 'mediaDevices'],
      ['navigator', 'wakeLock'],
      ['navigator', 'locks'],
      ['navigator', 'serviceWorker'],
      ['navigator', 'share'],
      ['crypto', 'randomUUID'],
      ['crypto', 'subtle'],
      ['window', 'caches'],
    ].map(([object, property]) => ({ object, property, message: 'Use what secure/ offers for it.' })),
    { property: 'getCoalescedEvents', message: 'Use `coalesced` of secure/secureOnly.' },
  ],
  'no-restricted-syntax': [
    'error',
    {
      selector:
        "UnaryExpression[operator='typeof'][argument.name=/^(Video|Audio)(En|De)coder$|^ClipboardItem$/]",
      message: 'Use what secure/secureOnly offers for it.',
    },
  ],
};

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/dist-types/**',
      '**/node_modules/**',
      '**/test-results/**',
      'data*/**',
      'scripts/*.d.mts',
    ],
  },
  js.configs.recommended,
  tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: {
        projectService: {
          allowDefaultProject: ['*.ts', 'web/vite.config.ts', 'web/vite.player.config.ts'],
        },
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/consistent-type-imports': 'off',
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/only-throw-error': 'off',
      '@typescript-eslint/prefer-promise-reject-errors': 'off',
      // Callbacks in interfaces are written as methods here; none of them uses `this`.
      '@typescript-eslint/unbound-method': 'off',
      '@typescript-eslint/no-redundant-type-constituents': 'off',
    },
  },
  {
    files: ['**/*.mjs', '**/*.js'],
    extends: [tseslint.configs.disableTypeChecked],
    languageOptions: { globals: Object.fromEntries(SCRIPT_GLOBALS.map((name) => [name, 'readonly'])) },
  },
  { files: ['core/src/**'], rules: forbid('@doodla/*', 'react*', 'node:*', '../../server/*', '../../web/*') },
  {
    files: ['server/src/**'],
    plugins: { regexp },
    rules: {
      ...forbid('@doodla/web*', '../../web/*'),
      // Strangers choose what these are run on.
      'regexp/no-super-linear-backtracking': 'error',
      'regexp/no-super-linear-move': 'error',
      'no-restricted-syntax': [
        'error',
        {
          selector:
            "CallExpression[callee.property.name=/^(save|transaction)$/][callee.object.object.type='ThisExpression']",
          message:
            'All requests share one connection: `insert` or `upsert`, and `Writes.together` for several.',
        },
      ],
    },
  },
  // Logs have a connection of their own.
  { files: ['server/src/storage/**'], rules: { 'no-restricted-syntax': 'off' } },
  {
    files: ['web/src/**'],
    rules: {
      ...forbid('@doodla/server*', 'node:*'),
      ...SECURE_ONLY,
      ...reactHooks.configs.recommended.rules,
      // A workspace is an external thing that is made and closed with the component.
      'react-hooks/set-state-in-effect': 'off',
    },
    plugins: { 'react-hooks': reactHooks },
  },
  {
    files: ['web/src/secure/**'],
    rules: { 'no-restricted-properties': 'off', 'no-restricted-syntax': 'off' },
  },
  {
    files: ['companion/src/**'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...forbid('@doodla/server*', 'node:*'),
      ...reactHooks.configs.recommended.rules,
      'react-hooks/set-state-in-effect': 'off',
      // What a page's own store holds, its scripts can read.
      'no-restricted-globals': ['error', 'localStorage', 'sessionStorage', 'indexedDB'],
    },
  },
  { files: ['e2e/**'], rules: { 'no-empty-pattern': 'off' } },
);
