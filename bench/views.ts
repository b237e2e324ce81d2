import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Browser } from '../e2e/browser';
import { everyView } from '../e2e/everyView';
import { LARGEST_PORTS, openLargest, untilProven } from '../e2e/largestShow';
import { takeTasks, watchTasks } from '../e2e/longTasks';
import { left } from '../e2e/standInMidi';
import { serve } from './serve';
import { size } from './size';

export interface Views {
  /** Of each view: the longest task of the page since the one before, in milliseconds, and its elements. */
  readonly views: readonly { readonly name: string; readonly worst: number; readonly elements: number }[];
  /** Messages that left meanwhile, how many of them after their time, and by how many milliseconds at the most. */
  readonly sent: number;
  readonly late: number;
  readonly latest: number;
}

/** What is looked at in each view before the next is opened: some seconds of playing. */
const STAY = size(1200, 0);

/** Opens every view of the largest show while it plays. */
export async function everyViewWhilePlaying(): Promise<Views> {
  const folder = mkdtempSync(join(tmpdir(), 'lantern-bench-'));
  const { address, stop } = await serve();
  const b = await Browser.open();
  try {
    await watchTasks(b);
    await openLargest(b, address, folder);
    await untilProven(b, 240_000);
    await b.click('link', 'Chart');
    await b.find('group', /^Chart of/);
    await b.click('button', 'Play');
    await b.find('button', 'Stop');
    await takeTasks(b);
    const views: { name: string; worst: number; elements: number }[] = [];
    const note = async (name: string): Promise<void> => {
      await new Promise((wait) => setTimeout(wait, STAY));
      const { tasks, elements } = await takeTasks(b);
      views.push({ name, worst: Math.max(0, ...tasks), elements });
    };
    await everyView(b, note);
    await b.click('link', 'Dry run');
    await b.click('link', 'Song 3');
    await b.find('list', 'Changes, the worst first');
    await note('Dry run: Song 3');
    await b.click('link', 'on the chart');
    await b.find('group', 'Chart of Song 3');
    await note('Chart: Song 3');
    const all = (await Promise.all(LARGEST_PORTS.map(([, real]) => left(b, real)))).flat();
    const late = all.map((l) => l.called - l.at).filter((by) => by > 1);
    return { views, sent: all.length, late: late.length, latest: Math.max(0, ...late) };
  } finally {
    await b.close();
    stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
