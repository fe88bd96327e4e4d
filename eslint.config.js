import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

/** Signs that stand for themselves in any language, and the name of the product. */
const ALONE = [...'()[]{}<>.,:;!?+-=*/#%&|·•–—−×÷°Ω≠≈≤≥~…“”’‘"\'⚠↻→←↑↓↵‹›■●○▲✓✕', 'gorvant']

/** What a script, or a template, hands to a control as its words. */
const WORDS = {
  selector:
    'Property[key.name=/^(title|says|label|placeholder|message|detail)$/] > Literal[value=/[A-Za-z]{2}/]',
  message: 'What the pages say stands in web/src/words.',
}

/** A sentence, or a part of one, that a script puts together by itself. */
const SENTENCE = {
  selector:
    ':matches(TemplateElement[value.raw=/^[^<]*(^|[^-\\w<])[a-z]{3,} [a-z]{3,}[^<=]*$/], Literal[value=/^[A-Z][a-z]+ [a-z]{2,}/])',
  message: WORDS.message,
}

export default tseslint.config(
  { ignores: ['web/dist/**', 'web/src/shared/api/schema.d.ts', 'node_modules/**', 'vendor/**'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['web/**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser } },
    rules: {
      'no-restricted-syntax': ['error', WORDS, SENTENCE],
      'vue/no-restricted-syntax': ['error', WORDS, SENTENCE],
    },
  },
  { files: ['web/src/**/*.ts'], rules: { 'no-restricted-syntax': ['error', WORDS, SENTENCE] } },
  {
    rules: {
      // Layout is Prettier's.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/multi-word-component-names': 'off',
      'no-console': 'error',
      'vue/no-v-html': 'error',
      // General controls are the library's, in our kit (web/src/shared/ui/kit).
      'vue/no-restricted-html-elements': ['error', 'select', 'input', 'datalist', 'dialog', 'progress'],
      'vue/no-restricted-static-attribute': [
        'error',
        { key: 'role', value: 'tablist' },
        { key: 'role', value: 'dialog' },
      ],
      // What the pages say stands in web/src/words.
      'vue/no-bare-strings-in-template': [
        'error',
        {
          allowlist: ALONE,
          attributes: {
            '/.+/': [
              ...['title', 'alt', 'label', 'placeholder', 'description', 'content', 'active-text'],
              ...['aria-label', 'aria-placeholder', 'aria-roledescription', 'aria-valuetext'],
            ],
          },
        },
      ],
      'no-restricted-globals': ['error', 'alert', 'confirm', 'prompt'],
    },
  },
)
