import { describe, expect, it } from 'vitest';
import { demoShow } from '../demo';
import { applyEdit, indexShow, newFootSwitch, pagesOf, putFootSwitches, type Doing } from '../show';
import { compareHeard, listenSteps, listenThrough, typingList } from './byHand';
import { fillSeries, setOnMany } from './fill';
import { compareMemories, memoryOf } from './memory';
import { switchSends } from './switchSends';

const show = demoShow();
const slack = pagesOf(show, 'treadle')[1]!;

describe('by hand', () => {
  it('a list names every message of every switch, in figures as on the wire', () => {
    const rows = typingList(show, 'treadle');
    const messages = pagesOf(show, 'treadle').flatMap((p) =>
      indexShow(show)
        .units.get('treadle')!
        .profile.controller!.switches.flatMap((s) =>
          switchSends(show, 'treadle', p.id, s.id).sends.flatMap((x) => [
            ...x.messages,
            ...(x.page === null ? [] : [x.page]),
          ]),
        ),
    );
    expect(rows).toHaveLength(messages.length);
    expect(rows[0]!.fields).toEqual({
      page: 'page 01',
      name: 'Fog Lead',
      switch: 'Switch 1',
      trigger: 'press',
      kind: 'control change',
      channel: '16',
      number: '20',
      value: '0',
    });
    expect(new Set(rows.map((r) => r.key)).size).toBe(rows.length);
    expect(typingList(show, 'quillback')).toEqual([]);
  });

  it('what arrives is compared with what should', () => {
    const expects = [
      [0xc0, 1],
      [0xb0, 2, 3],
    ];
    expect(compareHeard(expects, []).outcome).toBe('waiting');
    expect(compareHeard(expects, [[0xb0, 2, 3]])).toMatchObject({ outcome: 'waiting', missing: [[0xc0, 1]] });
    expect(
      compareHeard(expects, [
        [0xb0, 2, 3],
        [0xc0, 1],
      ]),
    ).toEqual({ outcome: 'right', missing: [], extra: [] });
    expect(compareHeard(expects, [[0xc0, 2]])).toMatchObject({ outcome: 'wrong', extra: [[0xc0, 2]] });
    const steps = listenSteps(show, 'pebble');
    expect(steps.map((s) => s.switchId)).toEqual(['pad-1', 'pad-2', 'pad-4', 'button-1']);
  });

  it('listening goes from switch to switch by itself, and on past what is wrong when it is told to', () => {
    const steps = [
      {
        pageId: 'p',
        switchId: 'a',
        expects: [
          [0xc0, 1],
          [0xc0, 2],
        ],
      },
      { pageId: 'p', switchId: 'b', expects: [[0xc0, 3]] },
      { pageId: 'p', switchId: 'c', expects: [[0xc0, 4]] },
    ];
    const came = (...programs: number[]) => programs.map((p, i) => ({ number: i + 1, bytes: [0xc0, p] }));
    expect(listenThrough(steps, [], [])).toMatchObject({ done: [], now: { outcome: 'waiting' } });
    expect(listenThrough(steps, came(1, 2, 3), []).done.map((d) => d.listened.outcome)).toEqual(['right', 'right']);
    const wrong = listenThrough(steps, came(1, 2, 9, 4), [3]);
    expect(wrong.done.map((d) => d.listened.outcome)).toEqual(['right', 'wrong', 'right']);
    expect(wrong.done[1]!.came).toEqual([[0xc0, 9]]);
    expect(wrong.now).toBeNull();
    expect(listenThrough(steps, came(9), [1, 1]).done.map((d) => d.listened.outcome)).toEqual(['wrong', 'waiting']);
  });

  it('two memories are compared switch by switch', () => {
    const now = memoryOf(show, 'treadle');
    expect(compareMemories(now, now)).toEqual([]);
    const entry = newFootSwitch('switch-1', [{ kind: 'session', act: 'stop' }]);
    const other = applyEdit(show, putFootSwitches(show, 'treadle', slack.id, [entry])!);
    const found = compareMemories(memoryOf(other, 'treadle'), now);
    expect(found.map((d) => d.what)).toEqual(['switch-name', 'messages', 'messages']);
    expect(found[0]).toEqual({ what: 'switch-name', page: 1, switch: 0, wanted: 'Stop', found: 'Fog Lead' });
    const fewer = { pages: now.pages.slice(1) };
    expect(compareMemories(now, fewer)).toEqual([{ what: 'page-missing', page: 0, name: 'Core sounds' }]);
    expect(compareMemories(fewer, now)).toEqual([{ what: 'page-extra', page: 0, name: 'Core sounds' }]);
  });
});

describe('filling', () => {
  const tones = show.tones.map((t) => t.id);
  const targets = ['a', 'b', 'c'].map((id) => newFootSwitch(id, []));

  it('goes on with the next tone, the next number, the next value', () => {
    const run = (does: Doing, step = 1) =>
      fillSeries(newFootSwitch('x', [does]), targets, tones, step).map((s) => s.doings[0]!.does);
    expect(run({ kind: 'tone', toneId: tones[0]! })).toEqual(
      tones.slice(1, 4).map((toneId) => ({ kind: 'tone', toneId })),
    );
    expect(run({ kind: 'tone', toneId: tones.at(-2)! })).toHaveLength(1);
    expect(run({ kind: 'message', bytes: 'c005b01440' })).toEqual(
      ['c006b01441', 'c007b01442', 'c008b01443'].map((bytes) => ({ kind: 'message', bytes })),
    );
    expect(run({ kind: 'message', bytes: 'c07e' }, 2)).toEqual([]);
    expect(run({ kind: 'control', unitId: 'tarn', controlId: 'mix', value: 10 }, 5).at(-1)).toMatchObject({
      value: 25,
    });
    expect(run({ kind: 'session', act: 'stop' })).toEqual([]);
    expect(fillSeries(newFootSwitch('x', []), targets, tones)).toEqual([]);
  });

  it('sets one thing on many switches, and leaves what they do otherwise', () => {
    const stop: Doing = { kind: 'session', act: 'stop' };
    const own = newFootSwitch('a', [{ kind: 'tone', toneId: tones[0]! }]);
    const [set] = setOnMany([own], 'long', stop);
    expect(set!.doings).toEqual([...own.doings, { on: 'long', does: stop }]);
    expect(setOnMany([set!], 'press', null)[0]!.doings).toEqual([{ on: 'long', does: stop }]);
  });
});
