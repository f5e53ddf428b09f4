import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import globals from 'globals'
import typescript from 'typescript-eslint'

export default typescript.config(
  { ignores: ['**/dist/', '**/node_modules/', '.data/', 'docs/'] },
  js.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [typescript.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true, allowBoolean: true, allowNullish: true }],
      '@typescript-eslint/prefer-promise-reject-errors': 'off',
      // It removes the assertions that tell useEntry its type.
      '@typescript-eslint/no-unnecessary-type-assertion': 'off',
      'no-undef': 'off',
    },
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // The computation is pure: no clock, no chance of its own.
    files: ['core/src/**/*.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now' },
        { object: 'Math', property: 'random' },
        { object: 'performance', property: 'now' },
      ],
    },
  },
  {
    // Whoever needs how many milliseconds an hour has reckons with clocks; core/src/time does that for all.
    files: ['**/*.ts', '**/*.tsx'],
    ignores: ['core/src/time/**', '**/*.{test,spec,long}.{ts,tsx}', 'e2e/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'Literal[value=3600000]', message: 'Take MS_PER_HOUR, or what you need it for, from @bocado/core/time.' },
        { selector: 'Literal[value=86400000]', message: 'Take MS_PER_DAY, or what you need it for, from @bocado/core/time.' },
        { selector: 'Literal[raw=/^36e5$|^864e5$/]', message: 'Take durations from @bocado/core/time.' },
        {
          selector: 'BinaryExpression[operator=/^[*\\u002f]$/] > MemberExpression[property.name=/^utcOffset/]',
          message: 'Offsets are reckoned with in core/src/time: standardDay, standardHour, shownAt, instantShown.',
        },
      ],
    },
  },
  { files: ['scripts/**/*.mjs', '*.js', '*.cjs', '**/vite.config.ts', '**/vitest.config.ts'], languageOptions: { globals: globals.node } },
  { files: ['**/vite.config.ts', 'vitest.config.ts'], extends: [typescript.configs.disableTypeChecked] },
)
