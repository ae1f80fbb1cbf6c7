import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'
import vueParser from 'vue-eslint-parser'

const outside = (patterns, why) => ['error', { patterns: [{ group: patterns, message: why }] }]
const outsideButTypes = (patterns, why) => [
  'error',
  { patterns: [{ group: patterns, message: why, allowTypeImports: true }] },
]
const clock = [
  {
    selector: 'CallExpression[callee.object.name="Date"][callee.property.name="now"]',
    message: 'The clock is injected: take `now` as an argument.',
  },
  {
    selector: 'NewExpression[callee.name="Date"][arguments.length=0]',
    message: 'The clock is injected: take `now` as an argument.',
  },
]
const chance = {
  selector: 'CallExpression[callee.object.name="Math"][callee.property.name="random"]',
  message: 'Seeds are arguments: use kit/random.',
}

/** The borders between the rings (docs/architecture.md), and a few rules that have caught something. */
export default ts.config(
  { ignores: ['.nuxt/**', '.output/**', 'node_modules/**', '.thistle/**'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parser: vueParser, parserOptions: { parser: ts.parser, extraFileExtensions: ['.vue'] } },
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-self-closing': ['warn', { html: { void: 'always' } }],
      'vue/html-indent': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/attributes-order': 'off',
      'vue/require-default-prop': 'off',
      'vue/no-v-html': 'error',
    },
  },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-undef': 'off',
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error', 'log'] }],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': outside(
        [
          'vue',
          'nuxt*',
          '#*',
          'h3',
          'mysql2*',
          'node:*',
          'pinia',
          '@vue*',
          '~*',
          '@/*',
          '**/server/**',
          '**/app/**',
          '**/formats/**',
        ],
        'core is pure: nothing of pages, HTTP, SQL or Node.',
      ),
      'no-restricted-syntax': ['error', ...clock, chance],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage'],
    },
  },
  {
    files: ['formats/**/*.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': outside(
        ['vue', 'nuxt*', 'h3', 'mysql2*', '**/server/**', '**/app/**'],
        'formats imports core alone.',
      ),
    },
  },
  {
    files: ['server/domain/**/*.ts', 'server/people/**/*.ts'],
    // The cookie is the one thing of HTTP that stands with the people.
    ignores: ['server/people/session-cookie.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': outside(
        ['vue', 'nuxt*', '#*', 'h3', '**/app/**', '**/api/**', '**/utils/**'],
        'the domain knows neither pages nor HTTP.',
      ),
      'no-restricted-syntax': ['error', ...clock, chance],
    },
  },
  {
    files: ['server/**/*.ts'],
    ignores: ['server/domain/bank/finding/**'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['**/finding/visible'],
              importNames: ['visibleTo'],
              message: 'No piece of SQL leaves the room: ask seenAmong or ensureSeen.',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['server/domain/**/*.ts'],
    // A statement in a loop is a defect: many rows go in one, and too many for one go through database/batches.ts.
    rules: { 'no-await-in-loop': 'error' },
  },
  {
    files: ['server/**/*.ts', 'app/**/*.{ts,vue}', 'formats/**/*.ts', 'core/**/*.ts'],
    // mathjs' decimals are written out by their own toFixed.
    ignores: ['core/kit/exact.ts', 'core/question/vary/expression.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { property: 'toFixed', message: 'Figures that people read are rounded by core/kit/exact.ts.' },
      ],
    },
  },
  {
    files: ['server/**/*.ts', 'demo/**/*.ts'],
    ignores: ['server/documents/**', 'server/database/**', '**/*.test.ts', 'server/utils/route.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { property: 'toFixed', message: 'Figures that people read are rounded by core/kit/exact.ts.' },
        { object: 'JSON', property: 'parse', message: 'Stored JSON is read by server/documents/read.ts.' },
      ],
    },
  },
  {
    files: ['app/**/*.{ts,vue}'],
    ignores: ['app/client/**', 'app/utils/download.ts', '**/*.test.ts', 'app/testing/**'],
    rules: {
      'no-restricted-globals': [
        'error',
        { name: '$fetch', message: 'The server is asked by the functions of app/client.' },
        { name: 'fetch', message: 'The server is asked by the functions of app/client.' },
      ],
    },
  },
  {
    files: ['server/api/**/*.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': outside(
        ['mysql2*', '**/database/**', '**/app/**'],
        'a route calls a domain module and knows no SQL.',
      ),
    },
  },
  {
    files: ['app/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': outsideButTypes(
        ['**/server/**', 'mysql2*', 'node:*', 'h3'],
        'pages reach the server over HTTP; only the types of its replies may be imported.',
      ),
    },
  },
)
