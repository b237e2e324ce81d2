import { readFileSync } from 'node:fs';
import { parseMidi } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { begin, goTo, openShelf } from './begin';
import { Key } from './browser';

const { b } = begin();

const all = Key.chord(Key.CONTROL, 'a');

describe('a song of forty bars by keyboard alone', () => {
  it('gets its frame: odd metres, a ramp, a pickup, sections', async () => {
    await openShelf(b);
    await b.press('button', 'Open the demo show', Key.ENTER);
    await b.find('heading', 'The set');
    await b.press('button', 'Add a song', Key.ENTER);
    await b.find('dialog');
    await b.type('Kelp Ladder', Key.TAB, '100', Key.TAB, '7/8', Key.TAB, '40', Key.ENTER);
    await b.find('group', 'Chart of Kelp Ladder');
    await b.press('radio', 'Structure', Key.ENTER);
    await b.find('region', 'Song structure');
    await b.press('textbox', /^Bar\|beat/, all, '17', Key.ENTER);
    await b.type(Key.ESCAPE);
    await b.press('button', /Metre at bar 17$/, Key.ENTER);
    await b.press('textbox', 'From bar 17', all, '5/4', Key.ENTER);
    await b.press('button', /Tempo at 17\|1$/, Key.ENTER);
    await b.press('textbox', /^Bar\|beat/, all, '25', Key.ENTER);
    await b.type(Key.ESCAPE);
    await b.press('button', /Tempo at 25\|1$/, Key.ENTER);
    await b.find('group', 'Tempo at 25|1');
    await b.press('button', /Section at bar 25$/, Key.ENTER);
    await b.find('group', 'Section Section 1');
    await b.press('textbox', 'Section', all, 'Ladder', Key.ENTER);
    await b.find('group', 'Section Ladder');
    // The second of three tempos runs up to the third.
    const ramp = (await b.driver.findElements({ css: '[aria-label="Tempo at 17|1"] input' }))[1]!;
    await ramp.sendKeys(all, '140', Key.ENTER);
    await b.find('button', /100 → 140/);
  });

  it('gets six cues and a sweep', async () => {
    await b.press('button', 'Close song structure', Key.ENTER);
    for (const [bar, name] of [
      ['1', 'harbour cl'],
      ['9', 'ledger rh'],
      ['17', 'undertow'],
      ['21|3', 'tarn mix 40'],
      ['25', 'fog lead'],
      ['40', 'four taps'],
    ] as const) {
      await b.press('textbox', /^Bar\|beat/, all, bar, Key.ENTER);
      await b.type(name, Key.ENTER);
    }
    await b.find('button', /^21\|3 Mix/);
    await b.find('button', /^40\|1 Four taps/);
    await b.press('textbox', /^Bar\|beat/, all, '33', Key.ENTER);
    await b.type(Key.ESCAPE);
    await b.press('button', 'Sweep …', Key.ENTER);
    await b.press('button', /Control$/, Key.ENTER);
    await b.press('option', 'Quillback: Delay mix', Key.ENTER);
    await b.press('button', 'Add the sweep', Key.ENTER);
    await b.find('region', 'Chosen sweep');
    await b.press('textbox', 'To bar|beat', all, '35|1', Key.ENTER);
    await b.find('button', /^33\|1 Delay mix, 0 % to 100 %, rising/);
    await b.find('button', '25|1 Fog Lead, proven');
    await b.find('button', '17|1 Undertow, proven');
  });

  it('comes out right to the tick', async () => {
    await b.press('button', 'MIDI file', Key.ENTER);
    await b.find('menuitem', /^As written/);
    await b.type(Key.ENTER);
    const { header, tracks } = parseMidi(readFileSync(await b.downloaded('.mid')));
    expect(header.ticksPerBeat).toBe(960);
    const timed = tracks.map((t) => {
      let tick = 0;
      return t.map((e) => ({ ...e, tick: (tick += e.deltaTime) }));
    });
    // 16 bars of 7/8, then bars of 5/4.
    const bar = (n: number): number => (n <= 17 ? (n - 1) * 3360 : 16 * 3360 + (n - 17) * 4800);
    const metres = timed[0]!.filter((e) => e.type === 'timeSignature').map((e) => [e.tick, e.numerator, e.denominator]);
    expect(metres).toEqual([
      [0, 7, 8],
      [bar(17), 5, 4],
    ]);
    const track = (unit: string) => timed.find((t) => t.some((e) => e.type === 'trackName' && e.text === unit))!;
    const programs = track('Quillback').flatMap((e) => (e.type === 'programChange' ? [e.tick] : []));
    // The opening that all songs share comes with the first.
    expect(programs).toEqual([1, 1, 9, 17, 25].map(bar));
    const mix = track('Tarn').find(
      (e) => e.type === 'controller' && e.controllerType === 71 && e.tick === bar(21) + 1920,
    );
    expect(mix).toMatchObject({ value: 51 });
    const sweep = track('Quillback').flatMap((e) =>
      e.type === 'controller' && e.controllerType === 53 && e.tick >= bar(33) ? [[e.tick, e.value]] : [],
    );
    expect(sweep[0]).toEqual([bar(33), 0]);
    expect(sweep.at(-1)![0]).toBe(bar(35));
    const tempos = timed[0]!.flatMap((e) => (e.type === 'setTempo' ? [[e.tick, e.microsecondsPerBeat]] : []));
    expect(tempos[0]).toEqual([0, 600000]);
    expect(tempos.length).toBeGreaterThan(20);
    const taps = track('Thistle Echo').flatMap((e) =>
      e.type === 'controller' && e.controllerType === 93 && e.tick >= bar(40) ? [e.tick] : [],
    );
    expect(taps).toEqual([0, 1, 2, 3].map((i) => bar(40) + i * 960));
  });

  it('moves a section with all that is in it, and takes it back', async () => {
    await b.press('radio', 'Structure', Key.ENTER);
    await b.press('textbox', /^Move or copy a section to/, '9');
    await b.press('button', 'Move', Key.ENTER);
    await b.find('button', /^9\|1 Fog Lead/);
    await b.find('button', /^25\|1 Ledger Rhythm/);
    await b.press('button', 'Undo: move Ladder', Key.ENTER);
    await b.find('button', /^25\|1 Fog Lead/);
    await b.press('button', 'Close song structure', Key.ENTER);
  });

  it('copies several cues, moves them together, and undoes it', async () => {
    await b.click('button', /^9\|1 Ledger Rhythm/);
    const second = await b.find('button', /^17\|1 Undertow/);
    await b.driver.actions().keyDown(Key.SHIFT).click(second).keyUp(Key.SHIFT).perform();
    await b.says('region', 'Chosen cues', '2 cues');
    await b.press('textbox', 'Move by beats (minus is earlier)', all, '1', Key.ENTER);
    await b.find('button', /^17\|2 Undertow/);
    await b.click('button', 'Copy');
    await b.press('textbox', /^Bar\|beat/, all, '3', Key.ENTER);
    await b.type(Key.ESCAPE);
    await b.press('group', 'Chart of Kelp Ladder', Key.chord(Key.CONTROL, 'v'));
    await b.find('button', /^3\|1 Ledger Rhythm/);
    await b.find('button', /^11\|1 Undertow/);
    await b.click('button', 'Undo: paste cues');
    await b.gone('button', /^3\|1 Ledger Rhythm/);
    await b.click('button', 'Undo: move 2 cues');
    await b.find('button', /^17\|1 Undertow/);
  });

  it('draws a sweep by hand', async () => {
    await goTo(b, '33');
    await b.click('button', /^33\|1 Delay mix/);
    const pad = await b.find('image', /^Curve of the sweep/);
    await b.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', pad);
    // Where it is on the screen, after its panel was scrolled.
    const { x, y, width, height } = await b.driver.executeScript<{
      x: number;
      y: number;
      width: number;
      height: number;
    }>(
      'const r = arguments[0].getBoundingClientRect(); return { x: r.x, y: r.y, width: r.width, height: r.height };',
      pad,
    );
    const at = (sx: number, sy: number) => ({
      x: Math.round(x + sx * width),
      y: Math.round(y + sy * height),
      origin: 'viewport' as never,
    });
    await b.driver
      .actions()
      .move(at(0.02, 0.9))
      .press()
      .move(at(0.3, 0.2))
      .move(at(0.6, 0.8))
      .move(at(0.97, 0.1))
      .release()
      .perform();
    await b.find('button', /^33\|1 Delay mix, [\d.]+ % to [\d.]+ %, drawn/);
    await b.find('textbox', /^Points: beats from the start/);
  });
});
