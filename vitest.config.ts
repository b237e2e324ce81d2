import { defineConfig } from 'vitest/config';

const TIMED = ['ports', 'practice', 'session', 'sound', 'share'].map((name) => `e2e/${name}.test.ts`);

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
          testTimeout: 20000,
          // All cores: nothing else runs meanwhile.
          maxWorkers: '100%',
        },
      },
      // A browser for each core: each file has a profile of its own, and waits for states, not for times.
      { test: { name: 'e2e', include: ['e2e/**/*.test.ts'], exclude: [...TIMED], maxWorkers: '100%', ...inBrowser } },
      // Those in which something has to leave at its time have the machine to themselves.
      { test: { name: 'timed', include: [...TIMED], fileParallelism: false, ...inBrowser } },
    ],
  },
});
