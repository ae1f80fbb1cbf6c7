import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const here = (folder: string) => fileURLToPath(new URL(folder, import.meta.url))

/** Projects from quick to slow; scripts/test.mjs runs them in this order. */
export default defineConfig({
  test: {
    projects: [
      {
        resolve: { alias: { '~~': here('.'), '~': here('./app') } },
        test: {
          name: 'unit',
          include: ['core/**/*.test.ts', 'formats/**/*.test.ts', 'app/**/*.test.ts', 'demo/**/*.test.ts'],
          exclude: ['app/composables/**'],
          testTimeout: 60_000,
          // Pure functions leave nothing behind: the modules that they share are read once, not once a file.
          isolate: false,
        },
      },
      {
        resolve: { alias: { '~~': here('.'), '~': here('./app') } },
        test: { name: 'page', include: ['app/composables/**/*.test.ts'] },
      },
      {
        test: { name: 'published', include: ['tests/published/**/*.test.ts'], isolate: false, testTimeout: 30_000 },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts', 'tests/server/**/*.test.ts'],
          globalSetup: 'tests/support/mariadb.ts',
          // Modules are read once; what they remember is forgotten with each database that is opened.
          isolate: false,
          testTimeout: 60_000,
          hookTimeout: 60_000,
          fileParallelism: false,
        },
      },
      // What takes its time and is not part of npm test: npm run faults, npm run cluster.
      ...['faults', 'cluster'].map((name) => ({
        test: {
          name,
          include: [`tests/${name}/**/*.test.ts`],
          globalSetup: 'tests/support/mariadb.ts',
          testTimeout: 1_800_000,
          hookTimeout: 120_000,
          fileParallelism: false,
        },
      })),
      {
        test: {
          name: 'e2e',
          include: ['tests/e2e/**/*.test.ts'],
          // What is written and looked up again: a machine may be slow, and what is waited for is the same.
          expect: { poll: { timeout: 15_000 } },
          globalSetup: 'tests/support/browser-setup.ts',
          setupFiles: 'tests/support/keep-pages.ts',
          isolate: false,
          testTimeout: 120_000,
          hookTimeout: 120_000,
          fileParallelism: false,
        },
      },
    ],
  },
})
