import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import ts from 'typescript-eslint'
import vueParser from 'vue-eslint-parser'

export default ts.config(
  { ignores: ['.nuxt/', '.output/', 'node_modules/', 'test-results/', 'playwright-report/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  // Nothing else knows of Vue, and looking for it there costs a fifth of the time.
  ...vue.configs['flat/recommended'].map((config) => ({ files: ['app/**/*.{ts,vue}'], ...config })),
  {
    files: ['**/*.vue'],
    languageOptions: { parser: vueParser, parserOptions: { parser: ts.parser } },
  },
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      // The type checker knows every name, auto-imports included; this rule does not.
      'no-undef': 'off',
      'vue/multi-word-component-names': 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
      // What is left out of a rest, and a parameter that a signature asks for, are named to be passed over.
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true, argsIgnorePattern: '^_' }],
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error'] }],
    },
  },
  {
    // Physics has no clock and no dice: they are passed in.
    files: ['core/**/*.ts', 'app/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts', 'app/stores/clock.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'Take the time from the Clock that is passed in.',
        },
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'Take the time from the Clock.',
        },
        {
          selector: "CallExpression[callee.object.name='performance'][callee.property.name='now']",
          message: 'elapsedMs, from the clock.',
        },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'No dice here.',
        },
      ],
    },
  },
  {
    // A figure that a caster reads is written by the workshop's own habits.
    files: ['app/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts', 'app/parts/show/figures.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { property: 'toFixed', message: 'figure, plain or rounded: app/parts/show/figures.ts.' },
        { property: 'toLocaleString', message: 'app/parts/show/figures.ts or time.ts.' },
      ],
    },
  },
  {
    // A browser may let nothing be kept: asked for in one place, which can do without.
    files: ['app/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts', 'app/stores/kept.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...['localStorage', 'sessionStorage'].map((name) => ({ name, message: 'app/stores/kept.ts.' })),
      ],
      'no-restricted-imports': [
        'error',
        {
          name: '@vueuse/core',
          importNames: ['useLocalStorage', 'useSessionStorage', 'useStorage'],
          message: 'useKept or useKeptHere: app/stores/kept.ts.',
        },
      ],
    },
  },
  { files: ['scripts/**', 'devices/**', 'bin/**'], rules: { 'no-console': 'off' } },
  prettier,
)
