// Everything that has to hold: lint, types, import rules, unit tests, browser tests. A step that fails keeps no other from running.
import { join } from 'node:path';
import { built } from './build.mjs';
import { browser, packages, root, run } from './ready.mjs';

const bin = (path) => join(root, 'node_modules', path);
const done = [];
/** Runs a step, which gives the exit code of what it ran. */
const step = (name, runs) => {
  const start = Date.now();
  console.log(`\n— ${name}`);
  let code;
  try {
    code = runs();
  } catch (error) {
    console.error(error.message);
    code = 2;
  }
  const seconds = ((Date.now() - start) / 1000).toFixed(1);
  console.log(`  ${name}: ${seconds} s`);
  done.push({ name, seconds, failed: code !== 0 });
  return code === 0;
};
const node = (path, ...args) => run(process.execPath, [bin(path), ...args]);

packages();
step('lint', () =>
  node('oxlint/bin/oxlint', '--type-aware', '--deny-warnings', 'src', 'server', 'cli', 'e2e', 'bench', 'scripts'),
);
step('layout', () =>
  node(
    'prettier/bin/prettier.cjs',
    '--check',
    '--log-level',
    'warn',
    'src',
    'server',
    'cli',
    'e2e',
    'bench',
    'scripts',
  ),
);
step('types', () => node('ts7/bin/tsc', '--noEmit', '-p', 'tsconfig.json'));
// The core by itself: no page, no machine.
step('types of the core', () => node('ts7/bin/tsc', '--noEmit', '-p', 'tsconfig.core.json'));
step('what nobody uses', () => node('knip/bin/knip.js'));
step('import rules', () =>
  node(
    'dependency-cruiser/bin/dependency-cruise.mjs',
    '--config',
    '.dependency-cruiser.cjs',
    'src',
    'server',
    'cli',
    'e2e',
    'bench',
  ),
);
step('unit tests', () => node('vitest/vitest.mjs', 'run', '--project', 'unit'));
// What cannot be built or shown cannot be tried in a browser.
if (step('build', () => built()) && step('browser', () => browser())) {
  step('browser tests', () => node('vitest/vitest.mjs', 'run', '--project', 'e2e'));
}
const failed = done.filter((d) => d.failed).map((d) => d.name);
console.log(`\n${done.map((d) => `${d.failed ? 'failed' : 'passed'}  ${d.name} (${d.seconds} s)`).join('\n')}`);
console.log(failed.length === 0 ? '\nAll good.' : `\nNot good: ${failed.join(', ')}.`);
process.exitCode = failed.length === 0 ? 0 : 1;
