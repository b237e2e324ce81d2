import { describe, expect, it } from 'vitest';
import { begin, lampOf, openDemo, unlock } from './begin';
import { Key } from './browser';

// One evening that is not as planned: each part goes on where the one before it stopped.
const { b } = begin();

const text = async (): Promise<string> => b.text('main');

describe('tonight', () => {
  it('a unit is off: it is said what is missed, the set is proven without it, and it is sent nothing', async () => {
    await openDemo(b);
    await b.click('link', 'Set');
    await b.click('link', 'Tonight');
    await b.pick(/Tarn tonight$/, 'off');
    await b.wait(async () => /\d+ changes are left out, in 8 songs\./.test(await text()), 'it is said what is missed');
    await b.click('link', 'Running order');
    await b.click('button', 'Play Slack Tide in Seven now');
    await b.wait(async () => (await lampOf(b, 'Quillback')).includes('A3'), 'the others are in their opening');
    expect(await lampOf(b, 'Tarn')).toContain('not known');
    await b.click('button', 'Stop');
    await b.wait(async () => (await b.textOf('link', /to all shows$/)) !== '', 'the show is open');
    await b.wait(async () => b.text('header').then((t) => t.includes('lands on time')), 'the set is proven without it');
  });

  it('a unit is replaced by its spare on another channel', async () => {
    await b.click('link', 'Tonight');
    await b.pick(/Thistle Echo tonight$/, /spare/);
    await b.pick(/Channel of the spare for Thistle Echo$/, 'channel 12');
    await b.click('link', 'Rig');
    await b.click('link', 'Monitor');
    await b.click('button', 'Play');
    await b.wait(async () => /channel 12|CB /.test(await text()), 'the spare is sent to on its channel');
    await b.click('button', 'Stop');
  });

  it('a player is missing', async () => {
    await b.click('link', 'Set');
    await b.click('link', 'Tonight');
    await b.click('switch', 'missing tonight');
    await b.wait(async () => /No part is recorded/.test(await text()), 'it is said that no part is there');
  });
});

describe('the mix', () => {
  it('has levels of each song, outputs of this computer, and sliders that hold until the next song', async () => {
    await b.click('link', 'Mix');
    await b.fill('textbox', 'Calls in Fog Bell', `99${Key.ENTER}`);
    await b.says('alert', undefined, 'Expected -60 to 12.');
    await b.fill('textbox', 'Calls in Fog Bell', `-6${Key.ENTER}`);
    await b.click('button', 'Click left, backing right');
    await b.wait(async () => /left\n/.test(await b.textOf('group', 'Click')), 'the click goes left');
    await b.grip('Click');
    await b.type(Key.ARROW_LEFT, Key.ARROW_LEFT);
    await b.wait(async () => (await b.textOf('group', 'Click')).includes('-2 dB'), 'softer for now');
    await b.click('link', 'Running order');
    await b.click('button', 'Play Fog Bell now');
    await b.find('button', 'Stop');
    await b.click('link', 'Mix');
    await b.wait(async () => (await b.textOf('group', 'Click')).includes('0 dB'), 'as programmed again');
    await b.click('button', 'Stop');
    await b.driver.navigate().refresh();
    await b.wait(async () => /left\n/.test(await b.textOf('group', 'Click')), 'outputs are kept');
  });
});

describe('a song that is added while another plays', () => {
  it('is in the set, and can come next', async () => {
    await b.click('link', 'Running order');
    await b.click('button', 'Play Slack Tide in Seven now');
    await b.find('button', 'Stop');
    await b.click('button', 'Add a song');
    await b.fill('textbox', 'Title', `Late Ferry${Key.ENTER}`);
    await b.find('row', /^Late Ferry/);
    await b.click('button', 'Play Late Ferry next');
    await b.find('button', 'Stop');
    await b.click('link', 'Stage');
    await b.click('button', 'Next song');
    await b.find('heading', /^Late Ferry/);
    await b.click('button', 'Stop');
    await unlock(b);
    await b.click('button', 'Leave the stage');
  });
});

describe('a stand-in player', () => {
  it('gets the stage and nothing else, until somebody unlocks the desk', async () => {
    await b.click('link', 'Screens');
    await b.click('button', 'Open for a stand-in player');
    await b.find('button', 'Start, hold');
    const stage = await b.driver.getCurrentUrl();
    // Whatever address is typed: another view, all shows, the demo.
    for (const other of [stage.replace(/\/stage$/, '/map'), new URL(stage).origin, `${new URL(stage).origin}/demo`]) {
      await b.go(other);
      await b.find('button', 'Start, hold');
    }
    await unlock(b);
    await b.find('group', 'Behind the lock');
    const desk = await b.find('button', 'Unlock the desk, hold for three seconds');
    await b.driver.actions().move({ origin: desk }).press().pause(3300).release().perform();
    // Behind the lock the digits lead away, as everywhere else.
    await b.type(Key.chord(Key.ALT, '1'));
    await b.find('grid', 'Running order');
  });
});
