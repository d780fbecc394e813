import prettier from '@vue/eslint-config-prettier/skip-formatting'
import vue from 'eslint-plugin-vue'
import typescript from 'typescript-eslint'

export default typescript.config(
  { ignores: ['dist/**', 'target/**', 'src/api/manage.ts'] },
  ...typescript.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: {
      parserOptions: { parser: typescript.parser, extraFileExtensions: ['.vue'], sourceType: 'module' },
    },
  },
  { rules: { 'vue/multi-word-component-names': 'off' } },
  prettier,
)
