// Everything that has to hold: lint, types, import rules, unit tests, browser tests.
import { join } from 'node:path';
import { build } from './build.mjs';
import { browser, must, packages, root } from './ready.mjs';

const bin = (path) => join(root, 'node_modules', path);
const step = (name, run) => {
  const start = Date.now();
  console.log(`\n— ${name}`);
  run();
  console.log(`  ${name}: ${((Date.now() - start) / 1000).toFixed(1)} s`);
};
const node = (path, ...args) => must(process.execPath, [bin(path), ...args]);

step('packages', () => packages());
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
step('types', () => {
  node('ts7/bin/tsc', '--noEmit', '-p', 'tsconfig.json');
  // The core by itself: no page, no machine.
  node('ts7/bin/tsc', '--noEmit', '-p', 'tsconfig.core.json');
});
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
step('build', () => build());
step('browser', () => browser());
step('browser tests', () => node('vitest/vitest.mjs', 'run', '--project', 'e2e'));
console.log('\nAll good.');
