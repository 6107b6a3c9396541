import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          testTimeout: 60_000,
          // No test changes what modules hold: they are read once for all files of a worker.
          isolate: false,
          include: [
            'core/**/*.test.ts',
            'contract/**/*.test.ts',
            'demo/**/*.test.ts',
            'web/**/*.test.ts',
            'scripts/**/*.test.ts',
          ],
        },
      },
      {
        test: {
          name: 'api',
          include: ['server/**/*.test.ts'],
          testTimeout: 60_000,
          hookTimeout: 90_000,
          isolate: false,
        },
      },
      {
        test: {
          name: 'browser',
          include: ['e2e/**/*.test.ts'],
          testTimeout: 180_000,
          hookTimeout: 60_000,
          fileParallelism: false,
          globalSetup: 'e2e/template.ts',
        },
      },
    ],
  },
})
