import { spawnSync } from 'node:child_process';
import { bundle } from './bundle';
import { LIMIT_CASES } from './limitCases';
import { size } from './size';

/** Milliseconds that a step may take. */
const AIM = 10_000;
/** And all of them together. */
const PATIENCE = 60_000;

/** Runs a show at each limit, one in a process of its own, and prints what each step took. False where one is over the aim. */
export async function limits(only = ''): Promise<boolean> {
  const file = await bundle('./limitProcess.ts');
  console.log(
    '\nShows at their limits: seconds to open, prove, prove again after an edit, export and print; in a heap of 500 MB.',
  );
  let good = true;
  for (const name of Object.keys(LIMIT_CASES).filter((n) => size(true, n.endsWith(' units')))) {
    if (!name.includes(only)) continue;
    const { stdout, stderr, status } = spawnSync(process.execPath, ['--max-old-space-size=500', file, name], {
      encoding: 'utf8',
      timeout: size(PATIENCE, 10 * PATIENCE),
    });
    const refused = /^Error: (refused in .*)/m.exec(stderr)?.[1];
    if (refused !== undefined) {
      console.log(`  ${name.padEnd(44)} ${refused}`);
      continue;
    }
    if (status !== 0) {
      good = false;
      console.log(
        `  ${name.padEnd(44)} ${stderr.split('\n').find((l) => /^[A-Za-z]*Error: /.test(l)) ?? 'no answer, or no room in 500 MB'}`,
      );
      continue;
    }
    const { took } = JSON.parse(stdout) as { took: Record<string, number> };
    const all = Object.values(took).map((ms) => (ms / 1000).toFixed(2).padStart(7));
    // Where only that it runs is looked at, a busy machine may take its time.
    good &&= Math.max(...Object.values(took)) < size(AIM, Number.POSITIVE_INFINITY);
    console.log(`  ${name.padEnd(44)} ${all.join(' ')}`);
  }
  console.log('  aim: each step within 10 s');
  return good;
}
