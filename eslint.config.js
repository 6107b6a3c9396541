import { fileURLToPath } from 'node:url'
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript'
import importX from 'eslint-plugin-import-x'
import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'
import { layerZones } from './scripts/layers.js'

const tests = ['**/*.test.ts', '**/*.test.tsx', 'e2e/**', '**/tests/**']

export default tseslint.config(
  { ignores: ['node_modules', '.build', '.data'] },
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [...tseslint.configs.strictTypeChecked],
    plugins: { 'import-x': importX, 'react-hooks': reactHooks },
    languageOptions: {
      parserOptions: {
        projectService: true,
        tsconfigRootDir: fileURLToPath(new URL('./', import.meta.url)),
      },
    },
    settings: {
      // Without this line no-cycle passes in silence on TypeScript.
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
      'import-x/resolver-next': [createTypeScriptImportResolver({ noWarnOnMultipleProjects: true })],
    },
    rules: {
      ...reactHooks.configs.recommended.rules,
      'import-x/no-cycle': ['error', { ignoreExternal: true }],
      'import-x/no-restricted-paths': ['error', { zones: layerZones }],
      'import-x/no-unresolved': 'off',
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
      'max-params': ['error', 3],
      // A switch over all kinds of something counts once: it is a table.
      complexity: ['error', { max: 12, variant: 'modified' }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      // RTK Query says void for endpoints that take nothing.
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
    },
  },
  {
    // The real guard of the core's purity: it imports no package at all.
    files: ['core/**/*.ts'],
    ignores: tests,
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '^[^.]', message: 'The core imports no package.' }] },
      ],
      'no-restricted-globals': ['error', 'Date', 'process', 'console', 'setTimeout', 'fetch'],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random' }],
    },
  },
  {
    files: tests,
    rules: {
      'max-lines-per-function': 'off',
      'max-params': 'off',
      complexity: 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
    },
  },
)
