import withNuxt from './.nuxt/eslint.config.mjs'

/** Imports point one way: app → shared → core and server → shared → core; core imports only itself. */
const boundary = (files, patterns) => ({ files, rules: { 'no-restricted-imports': ['error', { patterns }] } })

export default withNuxt(
  { ignores: ['.output/**', '.nuxt/**', 'node_modules/**', 'tests/samples/**'] },
  boundary(
    ['core/**/*.ts'],
    [
      { regex: '^(?!\\.{1,2}/)', message: 'core imports only itself' },
      { regex: '^(\\.\\./)+(app|server|shared|demo|tests|scripts|bench)/', message: 'core imports only itself' },
    ],
  ),
  boundary(
    ['shared/**/*.ts'],
    [
      { regex: '(^|/)(app|server|demo|tests)/', message: 'shared imports core and itself' },
      { regex: '^(nuxt|vue|pinia|h3|drizzle|postgres)', message: 'shared knows no framework and no database' },
    ],
  ),
  boundary(
    ['server/**/*.ts'],
    [
      { regex: '(^~/|/app/)', message: 'the server does not know the app' },
      { regex: '^(vue|pinia)', message: 'the server does not know the app' },
    ],
  ),
  {
    files: ['app/**/*.{ts,vue}'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '/server/',
              message: 'the app talks to the server through its API; what it answers is in shared/',
            },
            { regex: '^(postgres|drizzle|node:)', message: 'not in a browser' },
            {
              regex: '^(zod$|#shared/(api$|entries/|answers/))',
              allowTypeImports: true,
              message: 'schemas come after the screen: app/lib/checks.ts; what can be chosen is in shared/choices',
            },
          ],
        },
      ],
    },
  },
  {
    rules: {
      'no-console': ['error', { allow: ['error'] }],
      '@typescript-eslint/no-explicit-any': 'error',
      // a class list is one line to prettier; a pattern in a test cannot be broken
      'max-len': ['error', { code: 120, ignorePattern: '^\\s*class="[^"]*"$', ignoreRegExpLiterals: true }],
      'max-statements-per-line': ['error', { max: 1 }],
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
      'no-nested-ternary': 'error',
      // the same inside templates
      'vue/no-restricted-syntax': ['error', 'ConditionalExpression > ConditionalExpression'],
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
      'vue/attributes-order': 'off',
      // prettier's to say
      'vue/html-self-closing': 'off',
    },
  },
  { files: ['scripts/**', 'bench/**', 'demo/**', 'sim/**', 'tests/**'], rules: { 'no-console': 'off' } },
)
