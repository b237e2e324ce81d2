import { defineConfig } from 'vitest/config';

/** Browser tests that measure when something happens. */
const TIMED = ['e2e/ports.test.ts', 'e2e/views.test.ts', 'e2e/wholeNight.test.ts'];

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
          hookTimeout: 120000,
          // All cores: nothing else runs meanwhile.
          maxWorkers: '100%',
          // Modules are loaded once and not for each file: loading them took as long as the tests. A test leaves nothing behind.
          isolate: false,
          sequence: { groupOrder: 0 },
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          exclude: TIMED,
          maxWorkers: 2,
          sequence: { groupOrder: 1 },
          ...inBrowser,
        },
      },
      // What has to leave at its time is looked at alone: two browsers share no core in peace.
      {
        test: {
          name: 'timed',
          include: TIMED,
          fileParallelism: false,
          sequence: { groupOrder: 2 },
          ...inBrowser,
        },
      },
    ],
  },
});
