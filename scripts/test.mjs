// All checks: formatting, lint, types, import rules, unit tests, browser tests, the bench. A step that fails keeps no other from running.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { browser, packages, root } from './ready.mjs';

const bin = (path) => join(root, 'node_modules', path);
const CODE = ['src', 'server', 'cli', 'e2e', 'bench', 'scripts'];
const done = [];

/** Runs a program of this machine's Node.js; gives its exit code, and what it said where that is kept back. */
const node = (args, quiet) =>
  new Promise((resolve) => {
    const stdio = ['ignore', ...(quiet ? ['pipe', 'pipe'] : ['inherit', 'inherit'])];
    const child = spawn(process.execPath, args, { cwd: root, stdio });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (data) => (said += data));
    child.on('error', (error) => resolve({ code: 2, said: error.message }));
    child.on('close', (code) => resolve({ code: code ?? 1, said }));
  });

/** Runs a step and notes how it went; true where it went well. Steps side by side say what they have to say at their end. */
const step = async (name, run, quiet = false) => {
  const start = Date.now();
  if (!quiet) console.log(`\n— ${name}`);
  let result;
  try {
    result = await run(quiet);
  } catch (error) {
    result = { code: 2, said: error.message };
  }
  const { code, said = '' } = result;
  const seconds = ((Date.now() - start) / 1000).toFixed(1);
  console.log(`${quiet ? `\n— ${name}\n` : ''}${said.trimEnd()}${said.trim() ? '\n' : ''}  ${name}: ${seconds} s`);
  done.push({ name, seconds, failed: code !== 0 });
  return code === 0;
};
const program = (path, ...args) => [(quiet) => node([bin(path), ...args], quiet), true];

packages();
const begun = Date.now();

/** What is looked at without running it. */
const looks = async () => {
  await step('formatting', ...program('prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', ...CODE));
  await step('lint', ...program('oxlint/bin/oxlint', '--type-aware', '--deny-warnings', ...CODE));
  await step('types', ...program('ts7/bin/tsc', '--noEmit', '-p', 'tsconfig.json'));
  // The core by itself: no page, no machine.
  await step('types of the core', ...program('ts7/bin/tsc', '--noEmit', '-p', 'tsconfig.core.json'));
  await step('unused code', ...program('knip/bin/knip.js'));
  const rules = ['--config', '.dependency-cruiser.cjs', ...CODE.filter((folder) => folder !== 'scripts')];
  await step('import rules', ...program('dependency-cruiser/bin/dependency-cruise.mjs', ...rules));
};
/** What cannot be built or shown cannot be tried in a browser. */
const makes = async () => {
  const shown = await step('browser', () => ({ code: browser() }), true);
  const built = await step('build', (quiet) => node([join(root, 'scripts/build.mjs')], quiet), true);
  return shown && built;
};
const vitest = (project) => (quiet) => node([bin('vitest/vitest.mjs'), 'run', '--project', project], quiet);

/** Files of browser tests that failed beside others and passed by themselves. */
const unsteady = [];
/** The files that failed in a run, from what it wrote about itself; none where it wrote nothing. */
const failedFiles = (path) => {
  try {
    return JSON.parse(readFileSync(path, 'utf8'))
      .testResults.filter((file) => file.status === 'failed')
      .map((file) => file.name);
  } catch {
    return [];
  }
};
/**
 * Browser tests. A file that fails while others run beside it is run once more with the machine to itself: what fails
 * then as well has failed. What passes is named at the end, because it waits for too little somewhere.
 */
const inBrowser = (project) => async () => {
  const folder = mkdtempSync(join(tmpdir(), 'lantern-tests-'));
  const record = join(folder, 'run.json');
  const run = ['run', '--project', project];
  const first = await node([
    bin('vitest/vitest.mjs'),
    ...run,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${record}`,
  ]);
  const files = failedFiles(record);
  rmSync(folder, { recursive: true, force: true });
  if (first.code === 0 || files.length === 0) return first;
  console.log(`\n— once more by themselves: ${files.join(', ')}`);
  const second = await node([bin('vitest/vitest.mjs'), ...run, '--no-file-parallelism', ...files]);
  if (second.code === 0) unsteady.push(...files);
  return second;
};
const ready = await makes();
/** What measures nothing runs beside the browser tests: those wait for a page half of their time. */
const beside = async () => {
  await looks();
  await step('unit tests', vitest('unit'), true);
  if (ready)
    await step('bench at its smallest', (quiet) => node([join(root, 'scripts/bench.mjs'), 'small'], quiet), true);
};
await Promise.all([beside(), ready && step('browser tests', inBrowser('e2e'))]);
// What has to leave at its time has the machine to itself.
if (ready) await step('browser tests that measure', inBrowser('timed'));

const failed = done.filter((d) => d.failed).map((d) => d.name);
console.log(`\n${done.map((d) => `${d.failed ? 'failed' : 'passed'}  ${d.name} (${d.seconds} s)`).join('\n')}`);
if (unsteady.length > 0) console.log(`Failed beside others and passed alone: ${unsteady.join(', ')}.`);
console.log(`All in all ${((Date.now() - begun) / 60_000).toFixed(1)} minutes.`);
console.log(failed.length === 0 && ready ? '\nAll good.' : `\nNot good: ${failed.join(', ')}.`);
process.exitCode = failed.length === 0 && ready ? 0 : 1;
