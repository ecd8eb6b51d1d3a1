import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'
import vueParser from 'vue-eslint-parser'

/** Templates: what of them only a parser of theirs sees. All else, their scripts too, is oxlint's (.oxlintrc.json), in a tenth of the time. */
export default ts.config(
  { ignores: ['.nuxt/', '.output/', 'node_modules/', 'test-results/', 'playwright-report/'] },
  ...vue.configs['flat/recommended'].map((config) => ({ files: ['app/**/*.vue'], ...config })),
  {
    files: ['app/**/*.vue'],
    languageOptions: { parser: vueParser, parserOptions: { parser: ts.parser } },
    rules: {
      'vue/multi-word-component-names': 'off',
      // It knows what a template uses.
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true, argsIgnorePattern: '^_' }],
    },
    plugins: { '@typescript-eslint': ts.plugin },
  },
  prettier,
)
