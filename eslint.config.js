import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
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
];

export default tseslint.config(
  { ignores: ['**/dist/**', '**/dist-types/**', '**/node_modules/**', '**/test-results/**', 'data*/**'] },
  js.configs.recommended,
  tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: {
        projectService: {
          allowDefaultProject: ['*.ts', 'web/vite.config.ts'],
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
  { files: ['server/src/**'], rules: forbid('@doodla/web*', '../../web/*') },
  {
    files: ['web/src/**'],
    rules: {
      ...forbid('@doodla/server*', 'node:*'),
      ...reactHooks.configs.recommended.rules,
      // A workspace is an external thing that is made and closed with the component.
      'react-hooks/set-state-in-effect': 'off',
    },
    plugins: { 'react-hooks': reactHooks },
  },
  { files: ['e2e/**'], rules: { 'no-empty-pattern': 'off' } },
);
