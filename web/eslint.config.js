import boundaries from 'eslint-plugin-boundaries'
import hooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

const to = (...types) => ({ to: { element: { types: { anyOf: types } } } })

export default [
  { ignores: ['dist/**', 'src/api/schema.d.ts', 'src/api/bounds.ts'] },
  ...tseslint.configs.recommended,
  hooks.configs.flat.recommended,
  {
    files: ['src/**/*.{ts,tsx}'],
    plugins: { boundaries },
    settings: {
      'import/resolver': { typescript: true },
      'boundaries/elements': [
        { type: 'app', pattern: 'src/app' },
        { type: 'routes', pattern: 'src/routes' },
        { type: 'feature', pattern: 'src/features/*', capture: ['name'] },
        { type: 'ui', pattern: 'src/ui' },
        { type: 'api', pattern: 'src/api' },
        { type: 'lib', pattern: 'src/lib' },
      ],
      'boundaries/ignore': ['src/main.tsx', 'src/test-setup.ts'],
    },
    rules: {
      'boundaries/no-unknown-files': 2,
      'boundaries/dependencies': [
        2,
        {
          default: 'disallow',
          policies: [
            { from: { element: { type: 'app' } }, allow: to('routes', 'ui', 'api', 'lib') },
            { from: { element: { type: 'routes' } }, allow: to('feature', 'ui', 'lib') },
            { from: { element: { type: 'feature' } }, allow: to('ui', 'api', 'lib') },
            { from: { element: { type: 'api' } }, allow: to('lib') },
            { from: { element: { type: 'ui' } }, allow: to('lib') },
          ],
        },
      ],
      'max-lines': ['error', { max: 250, skipBlankLines: true }],
      complexity: ['error', 15],
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
    },
  },
  { files: ['src/**/*.test.{ts,tsx}'], rules: { 'max-lines-per-function': 'off' } },
  {
    files: ['src/**'],
    ignores: ['src/ui/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group: ['@radix-ui/*', 'radix-ui'], message: 'Use src/ui.' }] }] },
  },
]
