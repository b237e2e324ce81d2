import { describe, expect, it } from 'vitest';
import { barNow, begin, lampOf, openDemo, unlock } from './begin';
import { Key } from './browser';

// One evening: each part goes on where the one before it stopped.
const { b } = begin();

const rows = (): Promise<readonly string[]> => b.texts('[aria-label="Running order"] [role=row]');
const places = async (...names: string[]): Promise<number[]> => {
  const all = await rows();
  return names.map((n) => all.findIndex((r) => r.includes(n)));
};

describe('the running order', () => {
  it('says when each song begins', async () => {
    await openDemo(b);
    await b.click('link', 'Set');
    await b.find('grid', 'Running order');
    expect((await rows())[0]).toMatch(/20:30[\s\S]*Slack Tide in Seven/);
    await b.fill('textbox', 'On stage at', `25:00${Key.ENTER}`);
    await b.says('alert', undefined, 'Expected a time of day, as in 20:30, or nothing.');
    await b.fill('textbox', 'On stage at', `21:00${Key.ENTER}`);
    await b.wait(async () => (await rows())[0]!.includes('21:00'), 'the first song begins at nine');
  });

  it('is changed by keys, and back by undo', async () => {
    await b.click('row', /^Fog Bell/);
    await b.find('heading', 'Fog Bell');
    await b.type(Key.chord(Key.ALT, Key.ARROW_UP));
    await b.wait(async () => {
      const [bell, ledger] = await places('Fog Bell', 'The Rope Ledger');
      return bell! < ledger!;
    }, 'the bell comes before the ledger');
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.wait(async () => {
      const [bell, ledger] = await places('Fog Bell', 'The Rope Ledger');
      return bell! > ledger!;
    }, 'the ledger comes first again');
  });

  it('shows titles in other scripts in letters of its own, whatever fonts the computer has', async () => {
    const faces = (): Promise<number> =>
      b.driver.executeScript(
        `return [...document.fonts].filter((f) => f.family.includes('Lantern Letters') && f.status === 'loaded').length`,
      );
    expect(await faces()).toBe(0);
    await b.click('row', /^Fog Bell/);
    await b.click('button', 'Break');
    await b.fill('textbox', 'Title', `灯台の夜${Key.ENTER}`);
    await b.find('row', /^灯台の夜/);
    await b.wait(async () => (await faces()) > 0, 'the letters were fetched');
    await b.click('button', 'Remove from the set');
    await b.gone('row', /^灯台の夜/);
  });

  it('takes a break in, and another set beside it', async () => {
    await b.click('row', /^Fog Bell/);
    await b.click('button', 'Break');
    await b.fill('textbox', 'Title', `Low water${Key.ENTER}`);
    await b.fill('textbox', 'Minutes', `0${Key.ENTER}`);
    await b.says('alert', undefined, 'Expected 1 to 600.');
    await b.fill('textbox', 'Minutes', `15${Key.ENTER}`);
    await b.find('row', /^Low water/);
    await b.click('button', 'Remove from the set');
    await b.gone('row', /^Low water/);
    await b.pick(/Set$/, 'a new set …');
    await b.find('heading', 'Set 2');
    await b.click('button', 'Delete this set');
    await b.find('heading', 'Evening at the pier');
  });

  it('has the songs that it does not have below it, and takes them in again', async () => {
    await b.says('region', 'Tonight at a glance', /No findings[\s\S]*As usual/);
    await b.click('row', /^Gull Arithmetic/);
    await b.click('button', 'Remove from the set');
    await b.says('list', 'Songs beside the set', 'Gull Arithmetic');
    await b.click('button', 'Put Gull Arithmetic in the set');
    await b.gone('list', 'Songs beside the set');
    await b.click('button', /^Undo: put Gull Arithmetic/);
    await b.click('button', /^Undo: remove/);
    await b.gone('list', 'Songs beside the set');
    await b.find('row', /^Gull Arithmetic/);
  });
});

describe('an evening', () => {
  it('plays a song, and another after it than the set says', async () => {
    await b.click('button', 'Play The Rope Ledger now');
    await b.wait(async () => (await rows())[1]!.includes('plays'), 'the ledger plays');
    await b.click('button', 'Play Nine Fathoms next');
    await b.wait(async () => (await rows())[5]!.includes('comes next'), 'it is said what comes next');
    await b.click('link', 'Stage');
    await b.find('button', 'Stop');
    await b.click('button', 'Next song');
    await b.find('heading', /^Nine Fathoms/);
    await b.wait(async () => (await b.driver.getPageSource()).includes('Bar'), 'the bar is in sight');
  });

  it('takes a wrong start back with one press', async () => {
    await b.click('button', 'Undo the start');
    await b.find('heading', /^The Rope Ledger/);
    await b.find('button', 'Start, hold');
  });

  it('shows each player their part behind the lock', async () => {
    await unlock(b);
    await b.click('button', 'Okoro');
    await b.find('heading', /· Okoro$/);
    await b.find('list', 'Your part');
    await b.click('button', 'Lock');
    await b.gone('group', 'Behind the lock');
  });

  it('starts a song by a message that was learnt from a pad', async () => {
    await unlock(b);
    await b.click('button', 'Leave the stage');
    await b.click('row', /^Barnacle Hymn/);
    await b.click('button', 'Learn the message that starts it');
    await b.click('button', 'Pad 1 of Pebble');
    await b.says('status', 'Learnt', /Pads/);
    await b.click('button', 'Use it');
    await b.click('link', 'Rig');
    await b.click('link', 'Monitor');
    await b.click('button', 'Pad 1 of Pebble');
    await b.find('button', 'Stop');
    await b.click('link', 'Set');
    await b.wait(async () => (await rows()).some((r) => /Barnacle Hymn[\s\S]*plays/.test(r)), 'the hymn plays');
    await b.click('button', 'Stop');
    await b.says('region', 'Played', /Barnacle Hymn[\s\S]*by a message/);
  });

  it('has the next song chosen on stage without being started, and shows it', async () => {
    await b.click('button', 'Play Slack Tide in Seven now');
    await b.find('button', 'Stop');
    await b.click('link', 'Stage');
    await b.click('button', 'Choose the next song');
    const first = await b.textOf('paragraph', 'Song that comes next');
    await b.type(Key.chord(Key.SHIFT, Key.PAGE_DOWN));
    await b.wait(
      async () => (await b.textOf('paragraph', 'Song that comes next')) !== first,
      'another song comes next',
    );
    await b.find('heading', 'Slack Tide in Seven');
    await b.click('button', 'Stop');
    await b.driver.navigate().back();
    await b.find('grid', 'Running order');
  });

  it('lets starts be learnt in a row, and songs be numbered on from one', async () => {
    await b.click('button', 'Learn starts in a row');
    await b.says('status', 'Learnt in a row', /^Press for /);
    await b.click('button', 'Pad 2 of Pebble');
    await b.click('button', 'Pad 3 of Pebble');
    await b.says('list', 'Songs and what starts them', /Pads[\s\S]*Pads/);
    await b.click('button', 'Use these 2');
    await b.click('row', /^Slack Tide in Seven/);
    await b.says('complementary', 'Chosen entry', /from Pads/);
    await b.click('button', /^Number the \d+ songs behind it on from here$/);
    await b.find('button', 'Undo: number the messages of songs');
    await b.click('row', /^Gull Arithmetic/);
    await b.says('complementary', 'Chosen entry', /from Pads/);
    await b.click('button', 'Undo: number the messages of songs');
  });
});

describe('a song without a clock', () => {
  it('is stepped by hand, each step with its bar, and any of them reached by one press', async () => {
    await b.click('row', /^Slack Tide in Seven/);
    await b.click('switch', 'No clock: stepped by hand');
    await b.find('row', /^Slack Tide in Seven/);
    await b.click('link', 'Chart');
    await b.click('link', 'Set');
    await b.click('button', 'Play Slack Tide in Seven now');
    await b.find('button', 'Stop');
    await b.click('button', 'Stop');
    await b.click('link', 'Stage');
    await b.find('list', 'Steps');
    await b.click('button', /^29\|1\s*Fog Lead$/);
    await unlock(b);
    await b.click('button', 'Leave the stage');
    await b.wait(async () => (await lampOf(b, 'Quillback')).includes('H6'), 'the rig is on the step');
    await b.click('link', 'Stage');
    await b.click('button', 'Next change');
    await b.wait(async () => (await b.text('[aria-current=step]')).includes('Fog Lead, Wide'), 'the next step is on');
  });
});

describe('a page that is loaded anew while a song plays', () => {
  it('offers to go on at the bar it was in', async () => {
    await unlock(b);
    await b.click('button', 'Leave the stage');
    await b.click('button', 'Play Gull Arithmetic now');
    await b.find('button', 'Stop');
    await b.wait(async () => (await barNow(b)) >= 3, 'it is in bar 3');
    await b.driver.navigate().refresh();
    await b.says('status', 'Go on', /Gull Arithmetic was at bar [2-9], \d+ s ago\./);
    await b.click('button', /^Go on at bar [2-9]$/);
    await b.find('button', 'Stop');
    await b.gone('status', 'Go on');
    await b.wait(async () => (await barNow(b)) >= 2, 'it goes on there');
    await b.click('button', 'Stop');
    await b.find('button', 'Play');
    await b.driver.navigate().refresh();
    await b.find('grid', 'Running order');
    await b.gone('status', 'Go on');
  });
});
