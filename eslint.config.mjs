import next from 'eslint-config-next';
import typescript from 'eslint-config-next/typescript';

const config = [
  {
    ignores: [
      '.next/**',
      'dist/**',
      'node_modules/**',
      'next-env.d.ts',
      'test-results/**',
      'playwright-report/**',
      'src/server/db/migrations/**',
    ],
  },
  // What knows React reads what has React in it: it takes as long as all else together.
  ...[next].flat().map((part) => ({ ...part, files: ['src/app/**', 'src/workbench/**'], ignores: part.ignores ?? [] })),
  ...[typescript].flat(),
  {
    files: ['**/*.ts', '**/*.tsx'],
    rules: {
      // A design is opened by loading its whole page: see WholePageLink.
      '@next/next/no-location-assign-relative-destination': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-restricted-syntax': ['error', { selector: 'TSEnumDeclaration', message: 'Use a union of literals.' }],
      'max-lines': ['error', { max: 400, skipBlankLines: true }],
    },
  },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  {
    // What the types know: every case of a union is told, every promise is waited for, and no question has one answer only.
    files: ['src/**/*.ts', 'src/**/*.tsx'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-unnecessary-condition': 'error',
    },
  },
  {
    files: ['src/core/**', 'src/contract/**', 'src/workbench/**', 'src/workers/**', 'src/server/**', 'src/cli/**'],
    rules: {
      'no-restricted-exports': [
        'error',
        {
          restrictDefaultExports: {
            direct: true,
            named: true,
            defaultFrom: true,
            namedFrom: true,
            namespaceFrom: true,
          },
        },
      ],
    },
  },
];

export default config;
