import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['components.d.ts', 'auto-imports.d.ts', 'src/api/schema.d.ts'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue', '**/*.ts'],
    languageOptions: { globals: globals.browser, parserOptions: { parser: ts.parser } },
    rules: {
      'vue/block-order': ['error', { order: ['script', 'template', 'style'] }],
      'vue/component-api-style': ['error', ['script-setup']],
      'vue/require-default-prop': 'off',
      'max-lines': ['error', { max: 380, skipBlankLines: true, skipComments: true }],
    },
  },
  { files: ['**/*.test.ts', 'src/__tests__/**'], rules: { 'max-lines': 'off' } },
  prettier,
)
