import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['{src,server,cli}/**/*.test.{ts,tsx}'],
          environment: 'node',
          testTimeout: 20000,
          // All cores: nothing else runs meanwhile.
          maxWorkers: '100%',
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          globalSetup: ['e2e/globalSetup.ts'],
          setupFiles: ['e2e/setup.ts'],
          testTimeout: 120000,
          hookTimeout: 120000,
          // A browser for each core. Each file has a profile of its own, and waits for states, not for times.
          maxWorkers: '100%',
        },
      },
    ],
  },
});
