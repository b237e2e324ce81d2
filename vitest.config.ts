import { defineConfig } from 'vitest/config';

const inBrowser = {
  globalSetup: ['e2e/globalSetup.ts'],
  setupFiles: ['e2e/setup.ts'],
  testTimeout: 120000,
  hookTimeout: 120000,
};

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['{src,server,cli}/**/*.test.{ts,tsx}'],
          environment: 'node',
          // This finds a hang; it measures nothing, so that a busy machine fails nothing.
          testTimeout: 120000,
          // All cores: nothing else runs meanwhile.
          maxWorkers: '100%',
        },
      },
      // One browser after the other: something in most of them has to happen at its time, and two share no core in peace.
      { test: { name: 'e2e', include: ['e2e/**/*.test.ts'], fileParallelism: false, ...inBrowser } },
    ],
  },
});
