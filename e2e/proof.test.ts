import { describe, expect, it } from 'vitest';
import { begin, openDemoChart } from './begin';
import { By, Key } from './browser';

const { b } = begin();

/** Cues of the chart in sight that are not proven, by what their flags say. */
const hollow = async (): Promise<string[]> => {
  const flags = await b.driver.findElements(By.css('[aria-label$=", not proven"]'));
  const names = await Promise.all(flags.map(async (f) => (await f.getAttribute('aria-label')) ?? ''));
  return [...new Set(names)].filter((n) => /^\d/.test(n)).sort();
};

describe('a cue that comes too late', () => {
  it('is proven like all others before it is moved', async () => {
    await openDemoChart(b);
    await b.find('button', '9|1 Ledger Rhythm, proven');
    await b.find('button', '5|1 Harbour Clean, proven');
    expect(await hollow()).toEqual([]);
  });

  it('is proven again by itself when something is placed: it fails, says why, and offers what mends it', async () => {
    await b.fill('textbox', /^Bar\|beat/, `13|4.25${Key.ENTER}`);
    await b.type('fog lead', Key.ENTER);
    await b.find('button', '13|4.25 Fog Lead, fails');
    await b.find('button', '9|1 Ledger Rhythm, proven');
    await b.find('button', '13|4 Ledger Echo, proven');
    expect(await hollow()).toEqual([]);
    await b.says('region', 'Chosen cue', /\S+ is \d+ ms late, because .* takes \d+ ms and the change before it/);
    await b.find('link', /^\d findings: to the dry run$/);
  });

  it('is mended with one press and proven', async () => {
    await b.click('button', /^Move it \d+ ms later$/);
    await b.find('button', /^13\|4\.25 Fog Lead, proven$/);
    await b.gone('link', /findings?: to the dry run$/);
  });

  it('fails again when the mending is undone', async () => {
    await b.click('button', /^Undo: move it/);
    // The proof of this content is still known.
    await b.find('button', '13|4.25 Fog Lead, fails');
  });
});

describe('the dry run', () => {
  it('shows what is late first, close up, and compares two states', async () => {
    await b.click('link', 'Dry run');
    await b.click('link', 'Slack Tide in Seven');
    await b.says('list', 'Changes, the worst first', /^13\|4\.25/);
    await b.says('region', 'The chosen change', /Oxbow Forty is \d+ ms late/);
    await b.find('image', /^Close look at 13\|4\.25/);
    await b.find('image', 'How far each change landed from its beat: 3 late');
    await b.find('image', /^How busy each cable is: at most \d+ % of a second$/);
    await b.click('button', /^Move it \d+ ms later$/);
    await b.pick(/Compare with$/, /^before: move it/);
    await b.says('list', 'Changes that land otherwise', /\+\d+ ms → −\d/);
    await b.find('image', 'How far each change landed from its beat: none is late');
    await b.pick(/Compare with$/, 'nothing');
    await b.gone('list', 'Changes that land otherwise');
  });

  it('gives a change more room, by an edit that was tried, and one undo takes it back', async () => {
    const change = /^proven 25\|1 .*Ledger Rhythm/;
    await b.click('button', change);
    await b.says('region', 'The chosen change', 'Oxbow Forty is there on time');
    await b.says('region', 'More room for Oxbow Forty', /then it bears \d/);
    await b.click('button', 'Have every change of Quillback land 10 ms before its time');
    await b.says('region', 'The chosen change', 'Up to 6.0 ms slower');
    await b.type(Key.chord(Key.CONTROL, 'z'));
    await b.says('region', 'The chosen change', 'Up to 3.5 ms slower');
  });

  it('leads to the place on the chart', async () => {
    await b.click('button', /^proven 9\|1 .*Ledger Rhythm/);
    await b.says('region', 'The chosen change', '9|1 Ledger Rhythm');
    await b.click('link', 'on the chart');
    await b.says('region', 'Chosen cue', 'Ledger Rhythm');
  });

  it('adds the set up', async () => {
    await b.click('link', 'Dry run');
    await b.find('table', 'Songs of the set');
    await b.says('banner', undefined, 'lands on time');
    const texts = await b.texts('table tbody tr');
    expect(texts).toHaveLength(8);
    expect(texts.filter((t) => t.includes('…'))).toEqual([]);
  });
});

describe('a quiet finding', () => {
  it('is let be with a reason, and can be looked at again', async () => {
    await b.click('link', 'Chart');
    await b.find('group', /^Chart of Slack Tide/);
    await b.fill('textbox', /^Bar\|beat/, `10${Key.ENTER}`);
    await b.type('ledger rhythm', Key.ENTER);
    // It is on already.
    await b.click('button', 'Ignore …');
    await b.fill('textbox', 'Reason', 'a landmark for the stand-in');
    await b.type(Key.ENTER);
    await b.gone('dialog');
    await b.gone('link', /findings?: to the dry run$/);
    await b.click('link', 'Dry run');
    await b.click('link', 'Slack Tide in Seven');
    await b.click('DisclosureTriangle', '1 ignored');
    await b.says('list', 'Ignored findings', 'a landmark for the stand-in');
    await b.click('button', 'Show again');
    await b.says('list', 'Findings', 'changes nothing');
  });
});

describe('a unit’s times', () => {
  it('are measured through the sound input, or it is said why not', async () => {
    await b.click('link', 'Map');
    await b.click('link', 'Tarn');
    await b.click('link', 'Timing and behaviour');
    await b.click('button', 'Measure them');
    // The browser's own stand-in for a sound input beeps now and then: all beeps and no held note.
    await b.click('button', 'Through the sound input');
    await b.says('dialog', undefined, /Listening: [1-5] of 5/);
    await b.says('dialog', undefined, /(A gap was heard in \d of 5 changes only|give or take)/);
    await b.click('button', 'Cancel');
    await b.gone('dialog');
  });

  it('are measured by ear and put into the map', async () => {
    await b.click('button', 'Measure them');
    await b.click('button', 'By ear');
    const press = async (name: string, said: string): Promise<void> => {
      for (let i = 1; i <= 5; i++) {
        const isCounted = async (): Promise<boolean> =>
          !(await b.text('[role=dialog] [role=status]')).includes(`${i - 1} of 5 ${said}`);
        await b.wait(async () => {
          // A press before anything sounded counts for nothing; one too many would press what comes next.
          await b.type(Key.SPACE);
          for (const end = Date.now() + 3000; Date.now() < end;) if (await isCounted()) return true;
          return false;
        }, `${name} ${i}`);
      }
    };
    await b.find('button', 'I hear the beep');
    await press('beep', 'beeps');
    await b.find('button', 'I hear the change');
    await press('change', 'changes');
    await b.says('dialog', undefined, /\d+ ms\s+give or take \d+; the map says \d+/);
    await b.click('button', 'Add to the map');
    await b.gone('dialog');
    await b.find('button', 'Undo: measure a time');
  });
});
