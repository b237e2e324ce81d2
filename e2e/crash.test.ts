import { describe, it } from 'vitest';
import { begin, closeTab, hold, openDemo, unlock } from './begin';
import { arrive, injectMidi, left, plug } from './standInMidi';

// A show on real ports whose tab is closed without a word, again and again.
const { b } = begin();

const bar = async (): Promise<number> => Number(await b.text('[aria-label="Bar"]'));
const kind = (): Promise<string> => b.text('[aria-label="Kind of playing"]');

/** The tab is closed as it is, and the application opened in another: its first page, with the same ports. */
const crash = (): Promise<void> => closeTab(b, () => injectMidi(b));

describe('a show', () => {
  it('says what is not ready, begins when that is accepted, and holds edits off', async () => {
    await injectMidi(b);
    await openDemo(b);
    await b.click('link', 'Rig');
    await b.click('link', 'Ports');
    await b.click('button', "Use this computer's ports");
    await b.find('table', 'Ports');
    for (const [port, real] of [
      ['Rack output', 'Grey box'],
      ['Feet input', 'Foot board'],
    ] as const) {
      await plug(b, real);
      await b.pick(new RegExp(`${port}$`), real);
    }
    await b.click('link', 'Set');
    await b.click('button', 'Start the show …');
    await b.says('list', 'Not ready', /Board, Harp side, Lamps and Pads: only stand-ins hear it/);
    await hold(b, /^Hold: start the show/, 300);
    await b.find('button', 'Hold it longer');
    await b.find('button', /^Hold: start the show/);
    await hold(b, /^Hold: start the show/, 1300);
    await b.find('button', 'Start, hold');
    await b.wait(async () => (await kind()) === 'Show', 'it is a show');
    await unlock(b);
    await b.click('button', 'Leave the stage');
    await b.find('status', 'The show is on');
    await b.click('button', 'Break');
    await b.says('status', 'Note', 'Not changed: the show is on.');
    await b.click('link', 'Stage');
  });

  it('is back after its tab was closed amid a song: one press, and the whole rig is caught up', async () => {
    await hold(b, 'Start, hold', 700);
    await b.wait(async () => (await bar()) >= 3, 'it is in bar 3');
    await b.click('button', 'Choose the next song');
    await b.says('paragraph', 'Song that comes next', /^next: /);
    const chosen = await b.textOf('paragraph', 'Song that comes next');
    await crash();
    await b.says('status', 'Go on', /Slack Tide in Seven was at bar [3-9], \d+ s ago\./);
    await b.wait(async () => (await kind()) === 'Show', 'it is a show');
    await b.says('paragraph', 'Song that comes next', chosen);
    await plug(b, 'Grey box');
    await plug(b, 'Foot board');
    await b.click('button', /^Go on at bar [3-9]$/);
    await b.find('button', 'Stop');
    // A bank and a program, or a program alone, for each unit behind the rack's cable.
    await b.wait(
      async () => (await left(b, 'Grey box')).filter(({ bytes }) => bytes[0]! >> 4 === 0xc).length >= 3,
      'every unit is sent its preset',
    );
    await b.wait(async () => (await bar()) >= 3, 'and the song goes on');
    await b.gone('status', 'Go on');
  });

  it('has its feet from the first second after it: a switch steps on before anything was pressed', async () => {
    await crash();
    await b.find('status', 'Go on');
    await plug(b, 'Grey box');
    await plug(b, 'Foot board');
    const before = await bar();
    await b.wait(async () => {
      await arrive(b, 'Foot board', 0xbf, 111, 127);
      await arrive(b, 'Foot board', 0xbf, 111, 0);
      return (await bar()) > before;
    }, 'the next change is gone to');
    await b.wait(async () => (await left(b, 'Grey box')).length > 0, 'and sent');
  });

  it('is back whenever it is killed, and is asked about once', async () => {
    for (const wait of [150, 900, 2100]) {
      await hold(b, 'Start, hold', 700);
      await b.find('button', 'Stop');
      await new Promise((next) => setTimeout(next, wait));
      await crash();
      await b.says('status', 'Go on', 'Slack Tide in Seven was at bar');
      await b.wait(async () => (await kind()) === 'Show', 'it is a show');
      await b.click('button', 'Do not go on');
      await b.gone('status', 'Go on');
      await b.find('button', 'Start, hold');
    }
    await crash();
    await b.find('button', 'Start, hold');
    await b.wait(async () => (await kind()) === 'Show', 'it is a show');
    await b.gone('status', 'Go on');
  });

  it('is over when its end is held; what was played in it has a list of its own', async () => {
    await unlock(b);
    await hold(b, 'End the show, hold', 1300);
    await b.wait(async () => (await kind()) === 'Rehearsal', 'it is over');
    await b.click('button', 'Leave the stage');
    await b.find('grid', 'Running order');
    await b.wait(
      async () => /Show of \d+ \w+, \d+:\d\d · \d songs/.test(await b.text('[aria-label=Played]')),
      'its list',
    );
    await crash();
    await b.find('button', 'Open the demo show');
  });
});
