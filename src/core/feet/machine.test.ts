import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toHex } from '../midi';
import { runs } from '../testing/runs';
import { FOOT_AT_REST, footStep, isLit, type FootInput, type FootState } from './machine';
import { pedalValue, type FootMemory, type StoredAction } from './memory';

const action = (trigger: StoredAction['trigger'], byte: number, page: StoredAction['page'] = null): StoredAction => ({
  trigger,
  messages: byte < 0 ? [] : [[0xc0, byte]],
  page,
});

const memory: FootMemory = {
  pages: [
    {
      place: 0,
      name: 'First',
      switches: [
        { place: 0, name: 'Plain', actions: [action('press', 1), action('release', 2)] },
        { place: 1, name: 'Flip', actions: [action('press', 3), action('again', 4)] },
        { place: 2, name: 'Long', actions: [action('press', 5), action('long', 6)] },
        { place: 3, name: 'Double', actions: [action('press', 7), action('double', 8), action('release', 9)] },
        { place: 4, name: 'Go', actions: [action('press', 10, 5)] },
        { place: 5, name: 'All', actions: [action('press', 11), action('long', 12), action('double', 13)] },
      ],
      pedals: [{ place: 0, channel: 3, number: 11, from: 127, to: 27, bend: 'straight' }],
    },
    {
      place: 5,
      name: 'Sixth',
      switches: [
        { place: 0, name: 'On', actions: [action('press', -1, 'next')] },
        { place: 1, name: 'Back', actions: [action('press', -1, 'previous')] },
        { place: 4, name: 'Other', actions: [action('press', 20), action('release', 21)] },
      ],
      pedals: [],
    },
  ],
};

/** What a controller sends when it is played, as text, and how it stands then. */
function play(...inputs: readonly FootInput[]): { sent: string; state: FootState } {
  let state = FOOT_AT_REST;
  const sent: string[] = [];
  for (const input of inputs) {
    const step = footStep(memory, state, input);
    state = step.state;
    sent.push(...step.sends.map((b) => toHex(b)));
  }
  return { sent: sent.join(' '), state };
}

const press = (place: number, millis = 0): FootInput => ({ kind: 'press', switch: place, at: millis * 1000 });
const release = (place: number, millis = 100): FootInput => ({ kind: 'release', switch: place, at: millis * 1000 });
const wake = (millis: number): FootInput => ({ kind: 'wake', at: millis * 1000 });

describe('a foot controller', () => {
  it('sends when a switch is pressed, and when it is let go', () => {
    expect(play(press(0)).sent).toBe('c001');
    expect(play(press(0), release(0)).sent).toBe('c001 c002');
    expect(play(release(0)).sent).toBe('');
    expect(play(press(9), release(9)).sent).toBe('');
  });

  it('flips between two, and shows by its light which', () => {
    const { sent, state } = play(press(1), release(1), press(1, 500), release(1, 600), press(1, 900), release(1, 999));
    expect(sent).toBe('c003 c004 c003');
    expect(isLit(state, 1)).toBe(true);
    expect(isLit(state, 0)).toBe(false);
  });

  it('waits with a press that could become a long one', () => {
    expect(play(press(2)).sent).toBe('');
    expect(play(press(2), release(2, 599)).sent).toBe('c005');
    expect(play(press(2), wake(599)).sent).toBe('');
    expect(play(press(2), wake(600)).sent).toBe('c006');
    expect(play(press(2), wake(700), release(2, 800)).sent).toBe('c006');
  });

  it('waits with a press that could become a double one', () => {
    expect(play(press(3), release(3, 50)).sent).toBe('c009');
    expect(play(press(3), release(3, 50), wake(299)).sent).toBe('c009');
    expect(play(press(3), release(3, 50), wake(300)).sent).toBe('c009 c007');
    expect(play(press(3), release(3, 50), press(3, 200), release(3, 250)).sent).toBe('c009 c008 c009');
    expect(play(press(3), release(3, 50), press(3, 400)).sent).toBe('c009 c007');
  });

  it('tells a press, a long and a double one apart on one switch', () => {
    expect(play(press(5), release(5, 100), wake(300)).sent).toBe('c00b');
    expect(play(press(5), release(5, 100), press(5, 250), release(5, 300), wake(900)).sent).toBe('c00d');
    expect(play(press(5), wake(400), wake(600), release(5, 700), wake(2000)).sent).toBe('c00c');
  });

  it('goes to another page with what it sends; what is let go is of the page that it was pressed on', () => {
    const { sent, state } = play(press(4), release(4), press(4, 200), release(4, 300));
    expect(sent).toBe('c00a c014 c015');
    expect(state.page).toBe(5);
    expect(play(press(4), press(0, 100)).state.page).toBe(0);
    expect(play(press(4), press(1, 100)).state.page).toBe(0);
    expect(play({ kind: 'step', by: 1 }).state.page).toBe(5);
    expect(play({ kind: 'step', by: -1 }).state.page).toBe(5);
    expect(play({ kind: 'go', page: 9 }, press(0)).sent).toBe('');
  });

  it('sends what its pedals are set to, only on pages that have them', () => {
    const pedal = (share: number): FootInput => ({ kind: 'pedal', pedal: 0, share });
    expect(play(pedal(0), pedal(0.5), pedal(1)).sent).toBe('b20b7f b20b4d b20b1b');
    expect(play({ kind: 'go', page: 5 }, pedal(1)).sent).toBe('');
    expect(pedalValue({ from: 0, to: 100, bend: 'slow' }, 0.5)).toBe(25);
    expect(pedalValue({ from: 0, to: 100, bend: 'fast' }, 0.25)).toBe(50);
    expect(pedalValue({ from: 0, to: 100, bend: 'straight' }, 7)).toBe(100);
  });

  it('survives a flood of presses: every message is one that it keeps, and nothing stays pressed', () => {
    const known = new Set(
      memory.pages.flatMap((p) => p.switches.flatMap((s) => s.actions.flatMap((a) => a.messages.map((m) => toHex(m))))),
    );
    const one = fc.record({ what: fc.constantFrom('press', 'release'), place: fc.nat(6), wait: fc.nat(400) });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 120 }), (list) => {
        let at = 0;
        const inputs = list.map(({ what, place, wait }): FootInput => {
          at += wait * 1000;
          return { kind: what, switch: place, at };
        });
        const ends = Array.from({ length: 7 }, (_, i): FootInput => ({ kind: 'release', switch: i, at: at + 1e6 }));
        const { sent, state } = play(...inputs, ...ends, { kind: 'wake', at: at + 9e6 });
        for (const bytes of sent.split(' ').filter((b) => b !== '')) expect(known.has(bytes)).toBe(true);
        expect([...state.pressed.values()].filter((p) => p.down || p.pending)).toEqual([]);
      }),
      runs(1301, 200),
    );
  });
});
