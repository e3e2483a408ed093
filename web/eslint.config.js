import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import { defineConfig } from 'eslint/config'
import globals from 'globals'
import ts from 'typescript-eslint'

export default defineConfig(
  { ignores: ['dist', 'src/api/schema.d.ts'] },
  js.configs.recommended,
  ts.configs.recommended,
  vue.configs['flat/recommended'],
  {
    files: ['**/*.{ts,vue}'],
    languageOptions: { globals: globals.browser, parserOptions: { parser: ts.parser } },
    rules: {
      'no-undef': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
      '@typescript-eslint/no-non-null-assertion': 'error',
    },
  },
  { files: ['offline/*.js'], languageOptions: { globals: globals.serviceworker } },
  // Rules that ask for types. Components are left to vue-tsc: the linter sees what they import of each other as any.
  {
    files: ['**/*.ts'],
    extends: [ts.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
  },
  // what stands in for a question to the server promises an answer, and has it at once
  { files: ['**/*.test.ts'], rules: { '@typescript-eslint/require-await': 'off' } },
  prettier,
)
