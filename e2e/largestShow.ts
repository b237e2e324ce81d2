import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { By, type Browser } from './browser';
import { injectMidi, plug } from './standInMidi';

/** The ports of the largest show, and what stands in for them on this computer. */
export const LARGEST_PORTS = [
  ['Port 0', 'Grey box'],
  ['Port 1', 'Red box'],
  ['Port 2', 'Blue box'],
] as const;

/** Writes the largest show that there should be, and opens it: 60 songs of 400 cues over 12 units, on the stand-in ports. */
export async function openLargest(b: Browser, address: string, folder: string): Promise<void> {
  const path = join(folder, 'largest.json');
  const made = spawnSync(process.execPath, ['--import', 'tsx', 'bench/largest.ts', path], { encoding: 'utf8' });
  if (made.status !== 0) throw new Error(made.stderr);
  await injectMidi(b);
  await b.go(address);
  await b.find('button', 'New show');
  await b.driver.findElement(By.css('input[type=file]')).sendKeys(path);
  await b.find('heading', 'The set');
  await b.click('link', 'Rig');
  await b.click('link', 'Ports');
  await b.click('button', "Use this computer's ports");
  await b.find('table', 'Ports');
  for (const [port, real] of LARGEST_PORTS) {
    await plug(b, real);
    await b.pick(new RegExp(`${port} output$`), real);
  }
}

/** Waits until all songs are proven. */
export async function untilProven(b: Browser, patience: number): Promise<void> {
  await b.click('link', 'Dry run');
  await b.says('main', undefined, 'up to date with every edit', patience);
}
