import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect } from 'vitest';
import { lantern as runLantern, type Ended } from './lantern';

/** Runs the tests of a file in a folder of their own, which has the demo show in it. */
export function inFolder(): {
  readonly lantern: (...args: string[]) => Promise<Ended>;
  /** Bad input: one line that says it, nothing on standard output, nothing left behind. */
  readonly refuses: (args: readonly string[], sentence: string | RegExp) => Promise<void>;
  readonly path: (name: string) => string;
} {
  let folder = '';
  let home = '';
  const lantern = (...args: string[]): Promise<Ended> => runLantern(args);
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'lantern-cli-'));
    home = process.cwd();
    process.chdir(folder);
    expect((await lantern('demo', '--out', 'demo.json')).code).toBe(0);
  });
  afterAll(() => {
    process.chdir(home);
    rmSync(folder, { recursive: true });
  });
  const refuses = async (args: readonly string[], sentence: string | RegExp): Promise<void> => {
    const before = readdirSync(folder);
    const { code, out, err } = await lantern(...args);
    expect(err).toMatch(sentence);
    expect(err.trim().split('\n')).toHaveLength(1);
    expect(err).not.toMatch(/\n\s+at /);
    expect(out).toBe('');
    expect(code).toBe(2);
    expect(readdirSync(folder)).toEqual(before);
  };
  return { lantern, refuses, path: (name) => join(folder, name) };
}
