import next from '@next/eslint-plugin-next';
import hooks from 'eslint-plugin-react-hooks';
import { defineConfig, globalIgnores } from 'eslint/config';
import tseslint from 'typescript-eslint';

/** Which folders a folder of src may import from. Arrows go one way. */
const ARROWS = {
  core: [],
  db: ['core'],
  engine: ['core'],
  server: ['core', 'db', 'engine'],
  segment: ['core'],
  detect: ['core', 'segment'],
  state: ['core', 'engine', 'segment', 'detect'],
  ui: ['core', 'engine', 'state'],
};

const LAYERS = ['core', 'db', 'engine', 'segment', 'detect', 'server', 'state', 'ui', 'app'];

/** Folders of the core: each may import from those before it, and from none behind. */
const CORE = [
  ...['plane', 'color', 'fields', 'geometry', 'film', 'frame', 'grade', 'survey', 'matte'],
  ...[
    'plan',
    'relief',
    'day',
    'layout',
    'light',
    'mirror',
    'night',
    'fixture',
    'touch',
    'drift',
    'sky',
    'lens',
    'placed',
    'scene',
    'picture',
    'output',
  ],
];

/** Packages and globals that the computation must not know of. */
const NOT_IN_CORE = [
  'react',
  'react-dom',
  'next',
  '@mantine/*',
  'node:*',
  'drizzle-orm',
  'better-sqlite3',
  'sharp',
  'comlink',
];

const arrows = Object.entries(ARROWS).map(([layer, allowed]) => {
  const closed = LAYERS.filter((other) => other !== layer && !allowed.includes(other));
  const patterns = closed.flatMap((other) => [`@/${other}/*`, `@/${other}`, `**/../${other}/*`]);
  return {
    files: [`src/${layer}/**`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: layer === 'core' ? [...patterns, ...NOT_IN_CORE] : patterns,
              message: `src/${layer} may not reach there.`,
            },
          ],
        },
      ],
      ...(layer === 'core'
        ? { 'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'self'] }
        : {}),
    },
  };
});

/** What src/core as a whole may not reach, told again for each of its folders: rules of one name do not add up. */
const [coreArrows] = arrows.filter(({ files }) => files[0] === 'src/core/**');
const [, { patterns: outside }] = coreArrows.rules['no-restricted-imports'];

const coreFolders = CORE.map((folder, place) => ({
  files: [`src/core/${folder}/**`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...outside,
          ...CORE.slice(place + 1).map((later) => ({
            group: [`**/../${later}/*`, `@/core/${later}/*`],
            message: `src/core/${folder} may not reach src/core/${later}.`,
          })),
        ],
      },
    ],
  },
}));

export default defineConfig(
  globalIgnores([
    '.next',
    'dist',
    'public',
    'data',
    'kernels',
    'drizzle',
    'next-env.d.ts',
    'test-results',
    'playwright-report',
  ]),
  tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: { projectService: { allowDefaultProject: ['*.mjs', 'scripts/*.mjs'] } },
    },
  },
  {
    files: ['src/ui/**', 'src/app/**'],
    plugins: { 'react-hooks': hooks, '@next/next': next },
    rules: { ...hooks.configs.recommended.rules, ...next.configs.recommended.rules },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error'] }],
    },
  },
  {
    files: ['src/**'],
    // The catalogue of stars is a list.
    ignores: ['**/*.test.ts', '**/star-catalogue.ts'],
    rules: {
      'max-lines': ['error', 250],
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
    },
  },
  { files: ['scripts/**', 'bench/**', 'test/hard/**'], rules: { 'no-console': 'off' } },
  { files: ['**/*.mjs'], extends: [tseslint.configs.disableTypeChecked] },
  ...arrows,
  ...coreFolders,
);
