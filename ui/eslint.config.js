import js from '@eslint/js'
import a11y from 'eslint-plugin-jsx-a11y-x'
import hooks from 'eslint-plugin-react-hooks'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['dist', 'src/wire/types.gen.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  hooks.configs.flat['recommended-latest'] ?? hooks.configs['recommended-latest'],
  a11y.configs?.recommended ?? a11y.flatConfigs.recommended,
  {
    rules: {
      // A name that begins with a line is left out on purpose.
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
    },
  },
)
