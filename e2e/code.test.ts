import { describe, expect, it } from 'vitest';
import { begin, openDemo } from './begin';
import { Key } from './browser';

const { b } = begin();
/** Where the song is, as the transport shows it. */
const bar = async (): Promise<number> => Number((await b.text('[aria-label="Position"]')).split('|')[0]);

describe('time code', () => {
  it('is given a port, and a song its place', async () => {
    await openDemo(b);
    await b.click('link', 'Rig');
    await b.click('link', 'Ports');
    await b.find('region', 'Time code');
    await b.pick(/Time code comes in on$/, 'Pads');
    await b.find('button', /^Time code leads: none yet/);
    await b.click('link', 'Chart');
    await b.find('group', 'Chart of Slack Tide in Seven');
    await b.click('radio', 'Structure');
    await b.click('button', 'More');
    await b.fill('textbox', 'Time code at bar 1', `25:00:00:00${Key.ENTER}`);
    await b.says('alert', undefined, /as in 01:02:03:04/);
    await b.fill('textbox', 'Time code at bar 1', `1:0:0${Key.ENTER}`);
    await b.find('button', 'Undo: change its place in the time code');
  });

  it('starts the song where a machine is, and follows its jumps', async () => {
    await b.click('link', 'Rig');
    await b.click('link', 'Ports');
    await b.fill('textbox', 'Machine runs from', `00:59:57${Key.ENTER}`);
    await b.click('button', 'Run the machine');
    await b.find('button', 'Stop');
    await b.find('button', /^Time code leads: 0/);
    await b.wait(async () => (await bar()) >= 1, 'the song runs');
    await b.fill('textbox', 'Machine runs from', `1:0:40${Key.ENTER}`);
    await b.click('button', 'Jump there');
    await b.wait(async () => (await bar()) > 10, 'the song is where the machine is');
    await b.click('button', 'Stop it');
    await b.find('button', 'Play');
    await b.find('button', /^Time code leads: 01:00:4.*, stands/);
  });

  it('is taken the lead from by hand, and given it back', async () => {
    await b.click('button', 'Run the machine');
    await b.click('button', 'Stop');
    await b.find('button', /^Our own clock leads; time code: 01:00:4/);
    await b.click('button', /^Our own clock leads/);
    await b.find('button', 'Stop');
    // Whoever comes back to the view finds the machine as it is.
    await b.click('link', 'Monitor');
    await b.click('link', 'Ports');
    await b.click('button', 'Drop out for 3 s');
    await b.says('status', 'Note', /Time code has stopped without a word/);
    await b.says('status', 'Note', /Time code is back/);
    expect(await bar()).toBeGreaterThan(10);
  });

  it('is learnt as the place of a song while it comes in', async () => {
    await b.click('button', 'Stop');
    await b.click('link', 'Chart');
    await b.click('radio', 'Structure');
    await b.click('button', 'Take the time code of now');
    await b.find('button', 'Undo: learn its place in the time code');
  });
});
