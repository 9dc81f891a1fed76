import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Workspaces that a workspace may not import from: one direction, `web → core` and `server → core`. */
const forbid = (...patterns) => ({ 'no-restricted-imports': ['error', { patterns }] });

export default tseslint.config(
  { ignores: ['**/dist/**', '**/dist-types/**', '**/node_modules/**', '**/test-results/**', 'data*/**'] },
  js.configs.recommended,
  tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: {
        projectService: {
          allowDefaultProject: [
            '*.js',
            '*.ts',
            'web/vite.config.ts',
            'scripts/*.mjs',
            'core/scripts/*.mjs',
            'bench/src/*.mjs',
          ],
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
    ...tseslint.configs.disableTypeChecked,
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        performance: 'readonly',
        setTimeout: 'readonly',
        fetch: 'readonly',
        Buffer: 'readonly',
        window: 'readonly',
        document: 'readonly',
        FormData: 'readonly',
        Blob: 'readonly',
        requestAnimationFrame: 'readonly',
        location: 'readonly',
      },
    },
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
