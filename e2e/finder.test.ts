import { describe, expect, it } from 'vitest';
import { begin, openDemo, openShelf, placeAt } from './begin';
import { Key } from './browser';

// Each part goes on where the one before it stopped.
const { b } = begin();

const open = async (): Promise<void> => {
  await b.type(Key.chord(Key.CONTROL, 'k'));
  await b.find('dialog', 'Ask, or find an action');
};
const find = async (text: string): Promise<void> => {
  await open();
  await b.type(text);
};
const inGroup = async (name: string): Promise<string[]> =>
  b.driver.executeScript(
    `const groups = [...document.querySelectorAll('[role=menu] [role=group]')];
     const own = groups.find((g) => g.textContent.startsWith(arguments[0]));
     return [...(own?.querySelectorAll('[role=menuitem] b') ?? [])].map((x) => x.textContent);`,
    name,
  );

describe('the finder', () => {
  it('goes to songs, units and tones by their names, with the keyboard alone', async () => {
    await openDemo(b);
    await find('gull arith');
    await b.find('menuitem', /^Gull Arithmetic/);
    await b.type(Key.ENTER);
    await b.find('group', 'Chart of Gull Arithmetic');
    await find('thistle');
    await b.find('menuitem', /^Thistle Echo\W+channel/);
    await b.type(Key.ENTER);
    await b.find('heading', 'Thistle Echo');
    await find('undertow');
    await b.find('menuitem', /^Undertow/);
    await b.type(Key.ENTER);
    await b.wait(async () => (await b.driver.getCurrentUrl()).includes('/tones/'), 'the tone is open');
  });

  it('does what is done in another view, with the button that is there', async () => {
    await find('add a song');
    await b.find('menuitem', /^Add a song/);
    await b.type(Key.ENTER);
    await b.find('dialog', 'Add a song');
    await b.type(Key.ESCAPE);
    await b.gone('dialog', 'Add a song');
  });

  it('presses buttons of the view in sight', async () => {
    await b.click('link', 'Set');
    await b.click('row', /^Fog Bell/);
    await find('duplicate fog');
    await b.find('menuitem', /^Duplicate Fog Bell/);
    await b.type(Key.ENTER);
    await b.says('status', 'Note', 'Fog Bell (copy) is at the end of the set.');
    await find('undo');
    await b.find('menuitem', /^Undo: /);
    await b.type(Key.ENTER);
    await b.find('button', 'Redo: duplicate Fog Bell');
  });

  it('finds each action of other views, and each can be done there', async () => {
    await b.click('link', 'Dry run');
    await b.find('heading', 'Dry run');
    await open();
    await b.find('menuitem', /^Stop/);
    const names = (await inGroup('In other views')).filter(
      (n) => !['Open for a stand-in player', 'Share the stage'].includes(n),
    );
    expect(names.length).toBeGreaterThanOrEqual(25);
    // Those two change what is in sight, and have tests of their own. The page's own print sheet is the browser's: it is not waited for.
    await b.driver.executeScript('window.print = () => undefined');
    await b.type(Key.ESCAPE);
    // Every second of them: each view is among them, and all would take a minute.
    for (const name of names.filter((_, i) => i % 2 === 0)) {
      await b.gone('dialog', 'Ask, or find an action');
      await find(name);
      await b.find('menuitem', new RegExp(`^${name.replaceAll(/[.*+?^${'$'}{}()|[\]\\]/g, '\\$&')}`));
      await b.type(Key.ENTER);
      await b.gone('dialog', 'Ask, or find an action');
      await b.wait(
        () =>
          b.driver.executeScript(
            `const wanted = arguments[0];
             const called = [...document.querySelectorAll('main button, [role=dialog]')].some((x) =>
               (x.getAttribute('aria-label') ?? x.textContent).replace(/\\s+/g, ' ').trim().includes(wanted));
             return called || document.querySelector('[role=dialog]') !== null;`,
            name,
          ),
        `${name} is there`,
      );
      expect(await b.driver.executeScript('return document.body.textContent.includes("that cannot be done now")')).toBe(
        false,
      );
      await b.type(Key.ESCAPE);
    }
  });

  it('says so when nothing is called that', async () => {
    await b.click('link', 'Set');
    await find('xylophone quartet');
    await b.wait(async () => (await b.text('[role=dialog]')).includes('Nothing is called that'), 'it says so');
    await b.type(Key.ESCAPE);
    await b.gone('dialog', 'Ask, or find an action');
  });
});

describe('the question box', () => {
  it('is asked of the song that stands', async () => {
    await find('slack tide');
    await b.find('menuitem', /^Slack Tide in Seven\W+song 1/);
    await b.type(Key.ENTER);
    await b.find('group', 'Chart of Slack Tide in Seven');
    await b.click('link', 'Map');
    await b.find('grid', 'Slots of Quillback');
  });

  // What is asked most, from whatever view, in at most seven letters.
  it.each<[question: string, answer: RegExp]>([
    ['9', /^9\|1 of .*: Ledger Rhythm\W+QB B1/],
    ['h6', /^Quillback H6, Fog Lead\W+.*in Slack Tide in Seven/],
    ['rack', /^Rack\W+port, 5-pin cable; reaches Quillback and Marram/],
    ['9 qb', /^Quillback at 9\|1 .* room \d/],
    ['harr', /^Harrow\W+.* changes in 8 songs want it/],
    ['tarn', /^Tarn\W+channel 7/],
    ['bytes 9', /^What leaves for the bar of 9\|1\W.*C0 06/],
    ['fog be', /^Fog Bell\W+song 3, begins at 20:34/],
    ['state 4', /^Oxbow Forty state 4, .*tones Fog Lead/],
    ['pad 1', /^Pad 1 of Pebble\W/],
    ['fog l', /^Fog Lead\W+tone, in Slack Tide in Seven/],
    ['room', /^Least room: \d/],
    ['pc 41', /^Quillback G5, .*program 40 from 0, 41 from 1/],
    ['rope', /^The Rope Ledger\W+song 2, .*; then Fog Bell/],
    ['okoro', /^Okoro, six-string bass\W+plays Marram/],
  ])('answers "%s"', async (question, answer) => {
    expect(question.length).toBeLessThan(8);
    await find(question);
    await b.find('menuitem', answer);
    await b.type(Key.ESCAPE);
    await b.gone('dialog');
  });

  it('goes there, and acts with the second key', async () => {
    await find('9');
    await b.find('menuitem', /^9\|1 of /);
    await b.type(Key.ENTER);
    await b.find('heading', 'The rig at 9|1');
    await find('h6');
    await b.find('menuitem', /^Quillback H6/);
    await b.type(Key.chord(Key.CONTROL, Key.ENTER));
    await b.gone('dialog');
    await b.says('listitem', 'Quillback', 'H6');
    await find('13');
    await b.find('menuitem', /^13\|1 of /);
    await b.type(Key.chord(Key.CONTROL, Key.ENTER));
    await b.find('button', 'Stop');
    await b.click('button', 'Stop');
  });

  it('says what is wrong with a bar that is not there', async () => {
    await find('999');
    await b.find('menuitem', /There is no bar 999; the song has bars up to 44/);
    await b.type(Key.ESCAPE);
    await b.gone('dialog');
  });
});

describe('the keys of a view', () => {
  it.each([
    ['Feet', 'Keys: Feet', 'put a tone, a move or a page'],
    ['Set', 'Keys: Set', 'move it in the running order'],
    ['Files', 'Keys: Files', 'find an action'],
  ])('are under "?" in %s', async (view, title, text) => {
    await b.click('link', view);
    await b.find('heading', view === 'Set' ? 'Evening at the pier' : view);
    await b.type('?');
    await b.says('dialog', title, text);
    await b.type(Key.ESCAPE);
    await b.gone('dialog', title);
  });
});

describe('the light of the desk', () => {
  const ground = (): Promise<string> =>
    b.driver.executeScript('return getComputedStyle(document.body).backgroundColor');

  it('is chosen, kept on this computer, and follows the system if wished', async () => {
    const day = await ground();
    await b.click('button', 'Light of the desk');
    await b.click('menuitemradio', 'Dark');
    await b.wait(async () => (await ground()) !== day, 'the desk is dark');
    const dusk = await ground();
    await b.driver.navigate().refresh();
    await b.find('heading', 'Files');
    await b.wait(async () => (await ground()) === dusk, 'it is dark again after a reload');
    await b.click('button', 'Light of the desk');
    await b.click('menuitemradio', 'As the system has it');
    await b.wait(async () => (await ground()) === day, 'the system is light');
    const system = (value: string): Promise<void> => b.media({ 'prefers-color-scheme': value });
    await system('dark');
    await b.wait(async () => (await ground()) === dusk, 'it follows the system');
    await system('light');
    await b.wait(async () => (await ground()) === day, 'and back');
  });
});

describe('the first steps', () => {
  const far = async (n: number): Promise<void> => b.says('region', 'First steps', `${n} of 5`);

  it('lead from wiring to the first lit lantern, and say how far one is', async () => {
    await openShelf(b);
    await b.click('button', 'New show');
    await far(0);
    await b.click('link', 'Go to Rig');
    await b.click('button', 'Add a unit');
    await b.fill('textbox', 'Name', `Gannet${Key.ENTER}`);
    await far(1);
    await b.click('link', 'Go to Map');
    await b.press('gridcell', /^A1/, 'Low Tide', Key.ENTER);
    await far(2);
    await b.click('link', 'Go to Tones');
    await b.click('button', 'Add the first tone');
    await b.click('button', 'Include Gannet');
    await b.fill('combobox', 'Preset', `low${Key.ENTER}`);
    await b.fill('textbox', 'Tone', `Low Tide${Key.ENTER}`);
    await far(3);
    await b.click('link', 'Go to Set');
    await b.click('button', 'Add a song');
    await b.fill('textbox', 'Title', 'Ebb');
    await b.click('button', 'Add the song');
    await b.find('group', 'Chart of Ebb');
    await far(4);
    await placeAt(b, '2', 'Low Tide');
    await b.find('button', /^2\|1 Low Tide/);
    await b.gone('region', 'First steps');
  });
});
