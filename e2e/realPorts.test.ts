import { describe, expect, it } from 'vitest';
import { barNow, begin, goTo, openDemo, unlock } from './begin';
import { By, Key } from './browser';
import { arrive, breakDown, injectMidi, left, plug } from './standInMidi';

// One rig on real ports: each part goes on where the one before it stopped. Nothing here has to leave at its time.
const { b } = begin();

const note = (text: RegExp): Promise<void> => b.says('status', 'Note', text);
const part = async (view: string, name: string): Promise<void> => {
  await b.click('link', view);
  await b.click('link', name);
};
const bar = (): Promise<number> => barNow(b);

/** What the table of ports says of one. */
const rowOf = async (port: string): Promise<string> => (await b.texts('tr')).find((row) => row.startsWith(port)) ?? '';

describe("this computer's ports", () => {
  it('are bound to ports of the show', async () => {
    await injectMidi(b);
    await openDemo(b);
    await part('Rig', 'Ports');
    await b.click('button', "Use this computer's ports");
    await b.find('table', 'Ports');
    for (const [port, real] of [
      ['Rack output', 'Grey box'],
      ['Feet input', 'Foot board'],
      ['Pads input', 'Pad box'],
    ] as const) {
      await plug(b, real);
      await b.pick(new RegExp(`${port}$`), real);
    }
    await b.click('link', 'Set');
  });

  it('that take no messages, though they are there, are said, on stage too, until they do again', async () => {
    await b.click('button', 'Play Slack Tide in Seven now');
    await b.find('button', 'Stop');
    await b.wait(async () => (await bar()) >= 2, 'the song runs');
    await breakDown(b, 'Grey box', true);
    await note(/Rack: the real port takes no messages\./);
    await b.click('link', 'Stage');
    const stage = async (): Promise<string> => b.text('main');
    await b.wait(async () => (await stage()).includes('Rack: the real port takes no messages.'), 'it is said on stage');
    const before = (await left(b, 'Grey box')).length;
    await breakDown(b, 'Grey box', false);
    await b.wait(async () => (await left(b, 'Grey box')).length > before + 2, 'what was missed is sent');
    await b.wait(async () => !(await stage()).includes('takes no messages'), 'and no longer said');
    await unlock(b);
    await b.click('button', 'Leave the stage');
  });

  it('would stop with the page: it asks before it goes', async () => {
    await b.find('button', 'Stop');
    const asks = (): Promise<boolean> =>
      b.driver.executeScript(
        "const e = new Event('beforeunload', { cancelable: true }); window.dispatchEvent(e); return e.defaultPrevented",
      );
    expect(await asks()).toBe(true);
    await b.click('button', 'Stop');
    await b.wait(async () => !(await asks()), 'nothing plays any more');
  });

  it('are the same after a reload, without being asked for', async () => {
    await b.driver.navigate().refresh();
    await part('Rig', 'Ports');
    await plug(b, 'Grey box');
    await b.wait(
      async () => /(?<![Nn]ot )connected/.test(await rowOf('Rack')) && !/not connected/.test(await rowOf('Rack')),
      'the port is found',
    );
    await plug(b, 'Foot board');
    await plug(b, 'Pad box');
    await b.wait(async () => !/not connected/.test(await rowOf('Feet')), 'and the feet');
  });
});

describe('a foot switch', () => {
  it('is learnt, and steps a song by hand', async () => {
    await part('Rig', 'Reactions');
    await b.click('button', 'Add a reaction');
    await b.click('button', 'Learn what it waits for');
    await arrive(b, 'Foot board', 0xb4, 99, 127);
    await arrive(b, 'Foot board', 0xb4, 99, 0);
    await b.says('status', 'Learnt', 'control 99 = 127, channel 5, from Feet (its release does nothing)');
    await b.click('button', 'Use it');
    await b.find('button', /^next change.*control 99 from 64 to 127 on channel 5, from Feet/s);
    await b.click('link', 'Set');
    await b.click('row', /^Nine Fathoms/);
    await b.click('switch', 'No clock: stepped by hand');
    await b.click('button', 'Play Nine Fathoms now');
    await b.find('button', 'Stop');
    await b.click('button', 'Stop');
    await b.click('link', 'Stage');
    await b.find('list', 'Steps');
    const step = async (): Promise<string> => b.text('[aria-current="step"]');
    const first = await step();
    await arrive(b, 'Foot board', 0xb4, 99, 127);
    await arrive(b, 'Foot board', 0xb4, 99, 0);
    await b.wait(async () => (await step()) !== first, 'one step on');
    const second = await step();
    await arrive(b, 'Foot board', 0xb4, 99, 127);
    await b.wait(async () => (await step()) !== second, 'and one more');
    await unlock(b);
    await b.click('button', 'Leave the stage');
  });
});

describe('a pad', () => {
  it('writes a cue where it is pressed while the song runs, one undo a take', async () => {
    await part('Rig', 'Reactions');
    await b.click('button', 'Add a reaction');
    await b.click('button', 'Learn what it waits for');
    await arrive(b, 'Pad box', 0x99, 44, 100);
    await b.says('status', 'Learnt', /note 44 on, channel 10/);
    await b.click('button', 'Use it');
    await b.pick(/Kind$/, 'A tone');
    await b.pick(/Tone$/, 'Undertow');
    await b.click('link', 'Set');
    await b.click('link', 'The Rope Ledger');
    await b.find('group', 'Chart of The Rope Ledger');
    const cues = async (): Promise<number> =>
      (await b.driver.findElements(By.css('[aria-label*=" Undertow, "]'))).length;
    const before = await cues();
    await b.click('switch', 'Pressed core tones become cues');
    await goTo(b, '1');
    await b.click('button', 'Play');
    await b.wait(async () => (await bar()) >= 2, 'it runs');
    await arrive(b, 'Pad box', 0x99, 44, 100);
    await arrive(b, 'Pad box', 0x89, 44, 0);
    await b.says('region', 'Write by playing', /1 tone: in the chart when the song stops/);
    await b.click('button', 'Stop');
    await b.wait(async () => (await cues()) === before + 1, 'the cue stands in the chart');
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.wait(async () => (await cues()) === before, 'and is taken back by one undo');
  });
});

describe('a section', () => {
  it('is looped a dozen times with the same bytes each round', async () => {
    await b.click('link', 'Set');
    await b.click('link', 'Slack Tide in Seven');
    await b.find('group', 'Chart of Slack Tide in Seven');
    await b.click('button', /^Practice/);
    await b.pick(/Loop$/, 'bars of your own');
    await b.fill('textbox', 'To the end of bar', `9${Key.ENTER}`);
    await b.fill('textbox', 'From bar', `9${Key.ENTER}`);
    await b.fill('textbox', /^Speed/, `150${Key.ENTER}`);
    await b.pick(/Loop$/, 'bars of your own');
    await b.fill('textbox', 'From bar', `8${Key.ENTER}`);
    await b.type(Key.ESCAPE);
    await goTo(b, '8');
    const before = (await left(b, 'Grey box')).length;
    await b.click('button', 'Play');
    // Two bars of 7/8 at 189 to the quarter.
    const period = (2 * 7 * 30_000) / 189;
    const fresh = async () => (await left(b, 'Grey box')).slice(before);
    const enough = async (): Promise<boolean> => {
      const all = await fresh();
      return all.length > 0 && all.at(-1)!.at - all[0]!.at > 14 * period;
    };
    await b.wait(enough, 'fourteen rounds have been played', 60_000);
    await b.click('button', 'Stop');
    const all = await fresh();
    // From the second round on, and not the last: the first was entered from elsewhere, the last was stopped.
    const round = all.filter((l) => l.at - all[0]!.at > period && all.at(-1)!.at - l.at > period);
    const bytes = round.map((l) => l.bytes.join(' '));
    const comesBackAfter = (n: number): boolean =>
      bytes.every((one, i) => i + n >= bytes.length || bytes[i + n] === one);
    const length = bytes.findIndex((_, n) => n > 2 && comesBackAfter(n));
    expect(length, 'messages of a round').toBeGreaterThan(2);
    expect(round.length).toBeGreaterThanOrEqual(11 * length);
    // What a busy machine handed over late left late; all else stands at the same place of its round.
    const inTime = (l: (typeof round)[number]): boolean => l.called < l.at;
    const pairs = round.slice(length).map((later, i) => [round[i]!, later] as const);
    const apart = pairs.filter((pair) => pair.every(inTime)).map(([one, next]) => next.at - one.at);
    expect(apart.length).toBeGreaterThan(pairs.length / 2);
    for (const time of apart) expect(Math.abs(time - period)).toBeLessThan(1.5);
  });
});

describe('what left the real ports', () => {
  it('is kept by night, the nearest to missing first, also after a reload', async () => {
    await b.click('link', 'Dry run');
    const nights = (): Promise<void> =>
      b.says('region', 'Nights that were played', /\d songs, \d+ messages on this computer’s own ports/);
    await nights();
    await b.says('list', 'Nearest to missing', /left (at its time|[\d.]+ ms late)/);
    await b.driver.navigate().refresh();
    await nights();
  });

  it('is a time of the port, where somebody wants plans to reckon with it', async () => {
    await b.click('link', 'Rig');
    await b.click('button', /^Rack/);
    await b.says('region', 'Grey box on this computer', /\d+ messages left Grey box by plan: usually/);
    await b.click('button', 'Reckon with it');
    await b.says('region', 'Settings of port Rack', /measured \d+ times/);
    await b.find('button', 'Plans reckon with it');
    await b.click('button', 'Measure anew');
    await b.says('region', 'Settings of port Rack', 'Nothing has left Grey box by plan yet');
  });
});
