import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TRIGGERS, slotCount } from '../addressing';
import { demoShow } from '../demo';
import { LIBRARY, libraryProfile } from '../library';
import { NOT_REACTED, partAims, react, rigSpec } from '../meaning';
import { toHex } from '../midi';
import { meets } from '../rig';
import { SimulatedRig } from '../simulate';
import {
  addFootPage,
  applyEdit,
  changeFeet,
  feetOf,
  inOrder,
  indexShow,
  moveSlots,
  newFootSwitch,
  newUnit,
  pagesOf,
  pageTitle,
  putFootSwitches,
  setUnitField,
  songsOfSet,
  type Doing,
  type FootSwitch,
  type Show,
} from '../show';
import { randomShow } from '../testing/randomShow';
import { runs } from '../testing/runs';
import { BOAT_PORT, boatShow } from './boat';
import { callOf } from './calls';
import { fallbackOf, reachOf } from './fallback';
import { labelsOf } from './labels';
import { FOOT_AT_REST, footStep } from './machine';
import { memoryOf } from './memory';
import { allReactions, echoesOf, heardSwitch, pageReactions } from './pageReactions';
import { propose, takeProposal } from './propose/proposal';
import { rehearse } from './rehearse';
import { shownName, switchSends } from './switchSends';
import { footWays } from './ways';

const show = demoShow();
const first = pagesOf(show, 'treadle')[0]!;
const slack = pagesOf(show, 'treadle')[1]!;
const sends = (s: Show, pageId: string, id: string) => switchSends(s, 'treadle', pageId, id);
const on = (s: Show, entry: FootSwitch, pageId = slack.id): Show =>
  applyEdit(s, putFootSwitches(s, 'treadle', pageId, [entry])!);
const hex = (list: readonly { readonly bytes: readonly number[] }[]): string =>
  list.map((m) => toHex(m.bytes)).join(' ');

describe('calls', () => {
  it('tell every switch of every page from all others, on every controller of the library', () => {
    for (const { profile } of LIBRARY) {
      const { controller } = profile;
      if (!controller) continue;
      const seen = new Set<string>();
      for (let page = 0; page < slotCount(profile.plan); page++) {
        for (const place of controller.switches.keys()) {
          for (const trigger of TRIGGERS) {
            const call = callOf(profile, controller, { page, switch: place, trigger });
            // A press always has one; where numbers are few, rarer things may not.
            if (!call) expect(trigger).not.toBe('press');
            else {
              expect(seen.has(toHex(call))).toBe(false);
              seen.add(toHex(call));
            }
          }
        }
      }
    }
  });

  it('never take a number with a meaning of its own', () => {
    const profile = libraryProfile('foot-controller');
    const low = { ...profile.controller!, call: { kind: 'control', channel: 1, first: 0 } as const };
    const numbers = Array.from(
      { length: 32 },
      (_, page) => callOf(profile, low, { page, switch: 9, trigger: 'long' })![1],
    );
    for (const number of numbers) expect([0, 6, 32, 38, 96, 97, 98, 99, 100, 101]).not.toContain(number);
    const high = { ...low, call: { ...low.call, first: 119 } };
    expect(callOf(profile, high, { page: 31, switch: 9, trigger: 'press' })).toBeNull();
  });
});

describe('what a switch sends', () => {
  it('is a call for the computer, then all that a tone says of each unit, presets first', () => {
    const [press, release] = sends(show, slack.id, 'switch-1').sends;
    // Page 2 of 32, the first of ten switches: the eleventh place.
    expect(toHex(press!.messages[0]!.bytes)).toBe('bf140a');
    expect(press!.messages[0]!.unitId).toBeNull();
    const kinds = press!.messages.slice(1).map((m) => m.bytes[0]! >> 4);
    expect(kinds.lastIndexOf(0xc)).toBeLessThan(kinds.length - 1);
    const of = (list: NonNullable<typeof press>): string => hex(list.messages.filter((m) => m.unitId === 'quillback'));
    // H6 is program 47 of bank 0; Bite is the third scene, which Quillback does not hear while it settles.
    expect(of(press!)).toBe('b00000 c02f');
    expect(of(release!)).toContain('b05502');
  });

  it('follows the map: when presets are reordered, when a unit gets another channel', () => {
    const moved = applyEdit(show, moveSlots(show, 'quillback', 47, 3)!);
    expect(hex(sends(moved, slack.id, 'switch-1').sends[0]!.messages)).toContain('c003');
    const other = applyEdit(show, setUnitField(show, 'quillback', 'channel', 12)!);
    expect(hex(sends(other, slack.id, 'switch-1').sends[0]!.messages)).toContain('cb2f');
  });

  it('keeps what a unit would not hear while it settles until the foot leaves the switch', () => {
    const deaf = show.units.filter((u) => u.profile.whileSettling === 'ignore').map((u) => u.id);
    const own = sends(show, slack.id, 'switch-1').sends;
    expect(own.map((s) => s.trigger)).toEqual(['press', 'release']);
    expect(deaf).toContain('quillback');
    expect(own[1]!.messages.every((m) => deaf.includes(m.unitId!))).toBe(true);
    // A switch that does something else when it is let go, or held, has no room for that.
    const entry = feetOf(show, 'treadle').pages[1]!.switches.find((s) => s.id === 'switch-1')!;
    const held: FootSwitch = {
      ...entry,
      doings: [...entry.doings, { on: 'long', does: { kind: 'session', act: 'stop' } }],
    };
    expect(sends(on(show, held), slack.id, 'switch-1').sends.map((s) => s.trigger)).toEqual(['press', 'long']);
  });

  it('is what its controller holds; what is too much is said, and the computer still hears which it was', () => {
    const treadle = indexShow(show).units.get('treadle')!;
    const small = applyEdit(
      show,
      setUnitField(show, 'treadle', 'profile', {
        ...treadle.profile,
        controller: {
          ...treadle.profile.controller!,
          holds: { program: 2, control: 9, note: 0, exclusive: 0, all: 5 },
        },
      })!,
    );
    const { sends: kept, wrong } = sends(small, slack.id, 'switch-1');
    expect(kept.flatMap((k) => k.messages)).toHaveLength(5);
    expect(toHex(kept[0]!.messages[0]!.bytes)).toBe('bf140a');
    expect(wrong.filter((w) => w.what === 'full').map((w) => w.kind)).toEqual(['program', 'control', 'all']);
  });

  it.each<[string, FootSwitch, string]>([
    ['nothing', newFootSwitch('switch-5', [], { name: 'Mute' }), 'silent'],
    ['goes to its own page', newFootSwitch('switch-5', [{ kind: 'page', to: { pageId: slack.id } }]), 'jump-here'],
    [
      'is called more than its display holds',
      newFootSwitch('switch-5', [{ kind: 'session', act: 'stop' }], { name: 'Stop it all now' }),
      'name-long',
    ],
    [
      'is called what its display cannot show',
      newFootSwitch('switch-5', [{ kind: 'session', act: 'stop' }], { name: 'Föhn' }),
      'name-letters',
    ],
  ])('is told when it is wrong: it %s', (_, entry, what) => {
    expect(sends(on(show, entry), slack.id, 'switch-5').wrong.map((w) => w.what)).toContain(what);
  });

  it('tells what a lesser controller cannot do', () => {
    const treadle = indexShow(show).units.get('treadle')!;
    const lesser = (rest: Partial<NonNullable<typeof treadle.profile.controller>>): Show =>
      applyEdit(
        show,
        setUnitField(show, 'treadle', 'profile', {
          ...treadle.profile,
          controller: { ...treadle.profile.controller!, ...rest },
        })!,
      );
    const wrong = (s: Show, id: string) => sends(s, slack.id, id).wrong.map((w) => w.what);
    expect(wrong(lesser({ triggers: ['press'] }), 'switch-10')).toEqual(['trigger']);
    expect(wrong(lesser({ jumps: 'none' }), 'switch-10')).toEqual(['jump']);
    expect(wrong(lesser({ jumps: 'alone' }), 'switch-10')).toEqual(['jump']);
    expect(wrong(lesser({ call: { kind: 'note', channel: 16, first: 120 } }), 'switch-10')).toEqual(['no-call']);
    const silent = applyEdit(
      show,
      changeFeet(show, 'treadle', (f) => ({ ...f, calls: false }))!,
    );
    expect(wrong(silent, 'switch-10')).toEqual(['unheard']);
  });

  it('names what no cable leads to, and what only turns over', () => {
    const cut = applyEdit(
      show,
      changeFeet(show, 'treadle', (f) => ({ ...f, boat: f.boat.filter((b) => b.id !== 'tarn') }))!,
    );
    // Behind Tarn hang Marram, Wick and Quillback, in one chain.
    const wrong = sends(cut, slack.id, 'switch-1').wrong.find((w) => w.what === 'unreached');
    expect(wrong).toMatchObject({ units: expect.arrayContaining(['tarn', 'marram', 'wick', 'quillback']) as unknown });
    const flip: Doing = { kind: 'tone', toneId: 'held-breath' };
    const tarn = indexShow(show).units.get('tarn')!;
    const bare = applyEdit(
      show,
      setUnitField(
        show,
        'tarn',
        'slots',
        tarn.slots.map((s) => ({ ...s, startControls: [] })),
      )!,
    );
    expect(sends(on(bare, newFootSwitch('switch-5', [flip])), slack.id, 'switch-5').wrong).toEqual([
      { what: 'unknown', controls: ['tarn/hold'] },
    ]);
  });

  it('shows names as far as the display does, and finds those that look alike', () => {
    const display = { length: 8, letters: 'capitals' } as const;
    expect(shownName('Rope Burn, Écho', display)).toBe('ROPE BUR');
    expect(shownName('Grün – ☃', { length: 20, letters: 'plain' })).toBe('Grun - ?');
    expect(shownName('Fog', { length: 0, letters: 'none' })).toBe('');
    const long = on(
      show,
      newFootSwitch('switch-5', [{ kind: 'tone', toneId: 'fog-lead' }], { name: 'Fog Lead for one' }),
    );
    const both = on(long, newFootSwitch('switch-8', [{ kind: 'tone', toneId: 'choir' }], { name: 'Fog Lead for two' }));
    expect(
      labelsOf(both, 'treadle', slack.id)
        .filter((l) => l.clash)
        .map((l) => l.switchId),
    ).toEqual(['switch-8', 'switch-5']);
    expect(labelsOf(show, 'treadle', slack.id).filter((l) => l.clash)).toEqual([]);
  });
});

describe('the computer', () => {
  const pressed = (s: Show, pageId: string, id: string) =>
    sends(s, pageId, id).sends.flatMap(({ messages }) =>
      messages
        .filter((m) => m.doing === null)
        .flatMap(({ bytes }) =>
          react({ reactions: allReactions(s) }, NOT_REACTED, { songId: null, at: 0 }, 'feet', bytes).steps.flatMap(
            (x) => x.acts,
          ),
        ),
    );

  it('hears each switch of each page, and does what it says, once', () => {
    for (const page of pagesOf(show, 'treadle')) {
      for (const entry of [...page.switches, ...feetOf(show, 'treadle').everywhere.switches]) {
        const wants = entry.doings.flatMap((d) =>
          d.does.kind === 'page'
            ? []
            : [d.does.kind === 'session' ? d.does.act : 'toneId' in d.does ? d.does.toneId : ''],
        );
        const acts = pressed(show, page.id, entry.id).map((a) =>
          a.kind === 'session' ? a.act : a.kind === 'tone' ? a.toneId : a.kind,
        );
        expect(acts).toEqual(wants);
      }
    }
  });

  it('knows what else comes with a press, so that it is done once', () => {
    const [reaction] = pageReactions(show).filter((r) => r.does.kind === 'tone' && r.does.toneId === 'fog-lead');
    const own = sends(show, first.id, 'switch-1').sends.flatMap((x) => x.messages.filter((m) => m.doing !== null));
    expect(echoesOf(show, heardSwitch(show, reaction!.id)!)).toEqual(own.map((m) => m.bytes));
    expect(own.length).toBeGreaterThan(10);
  });

  it('knows which switch of which page it was', () => {
    const [reaction] = pageReactions(show).filter((r) => r.does.kind === 'tone' && r.does.toneId === 'fog-lead');
    expect(heardSwitch(show, reaction!.id)).toEqual({
      unitId: 'treadle',
      pageId: first.id,
      switchId: 'switch-1',
      trigger: 'press',
    });
    expect(heardSwitch(show, 'none')).toBeUndefined();
  });

  it('takes a pedal for the control that it moves, and hears nothing of a controller that has no cable from a port', () => {
    const pedal = pageReactions(show).find((r) => r.id.includes('pedal'))!;
    expect(pedal.does).toMatchObject({ kind: 'control', unitId: 'thistle', controlId: 'feedback' });
    expect(pedal.hears).toMatchObject({ portId: 'feet', kind: 'control', channel: 8 });
    const loose = applyEdit(show, setUnitField(show, 'treadle', 'returns', null)!);
    expect(pageReactions(loose).filter((r) => r.id.startsWith('treadle'))).toEqual([]);
    expect(allReactions({ ...show, feet: [] })).toBe(show.reactions);
  });
});

describe('the emergency wiring', () => {
  it('hangs units behind the controller as they are plugged in, and cuts what the computer fed', () => {
    const boat = boatShow(show, 'treadle');
    const input = (id: string) => indexShow(boat).units.get(id)!.input;
    expect(input('harrow')).toEqual({ from: 'port', portId: BOAT_PORT });
    expect(input('thistle')).toEqual({ from: 'unit', unitId: 'harrow', thru: true });
    expect(input('oxbow')).toEqual({ from: 'unit', unitId: 'quillback', thru: false });
    expect(boat.ports).toHaveLength(1);
    expect(boatShow(show, 'treadle')).toBe(boat);
    const none = boatShow(show, 'pebble');
    expect(none.units.filter((u) => u.input?.from === 'port')).toEqual([]);
  });

  it('plays every song of the demo: each change is there less than half a second after the foot', () => {
    for (const song of songsOfSet(show)) {
      const { outcomes, unreached, fallback } = rehearse(show, 'treadle', song)!;
      expect(unreached).toEqual([]);
      expect(outcomes).not.toEqual([]);
      for (const { after, failed, hurried, step } of outcomes) {
        expect(failed).toEqual([]);
        expect(hurried).toBe(false);
        expect(after).toBeLessThan(500);
        expect(step.presses).toHaveLength(1);
      }
      expect(pageTitle(show, 'treadle', fallback.startPageId!)).toContain('page 0');
    }
    expect(rehearse(show, 'quillback', show.songs[0]!)).toBeNull();
  });

  it('finds a unit that hears nothing, as the rig does, not as the wiring says', () => {
    const wrong = applyEdit(show, setUnitField(show, 'marram', 'listens', 9)!);
    const { outcomes } = rehearse(wrong, 'treadle', show.songs[0]!)!;
    expect(outcomes[0]!.failed.map((v) => [v.unitId, v.outcome])).toEqual([['marram', 'never']]);
    expect(outcomes[0]!.after).toBeNull();
  });

  it('goes to another page by the fewest presses, and says when there is no time for it', () => {
    const bare = applyEdit(
      show,
      changeFeet(show, 'treadle', (f) => ({
        ...f,
        pages: f.pages.map((p) =>
          p.id === slack.id ? { ...p, switches: p.switches.filter((s) => s.id !== 'switch-1') } : p,
        ),
      }))!,
    );
    const lead = fallbackOf(bare, 'treadle', show.songs[0]!)!.steps.find(
      (s) => s.does.kind === 'tone' && s.does.toneId === 'fog-lead',
    )!;
    // Held switches turn pages too, but nobody holds one in the dark: no way is found by pressing.
    expect(lead.presses).toBeNull();
    const jump = newFootSwitch('switch-1', [{ kind: 'page', to: { pageId: first.id } }]);
    const jumping = on(bare, jump);
    const way = fallbackOf(jumping, 'treadle', show.songs[0]!)!.steps.find(
      (s) => s.does.kind === 'tone' && s.does.toneId === 'fog-lead',
    )!;
    expect(way.presses).toEqual([
      { kind: 'switch', pageId: slack.id, switchId: 'switch-1' },
      { kind: 'switch', pageId: first.id, switchId: 'switch-1' },
    ]);
    expect(reachOf(jumping, 'treadle', songsOfSet(jumping)).find((r) => r.toneId === 'fog-lead')).toMatchObject({
      songId: show.songs[0]!.id,
      presses: 2,
      needs: 0.5,
    });
    const { outcomes } = rehearse(jumping, 'treadle', show.songs[0]!)!;
    expect(outcomes.every((o) => o.failed.length === 0)).toBe(true);
  });

  it('steps of a page lead round in a circle without end, and are not followed for ever', () => {
    const ways = footWays(show, 'treadle')!;
    expect(ways.pages).toHaveLength(9);
    expect(footWays(show, 'marram')).toBeNull();
  });

  it('of random shows: a switch brings every unit that its tone names to what the tone says, whatever it was on', () => {
    let steps = 0;
    fc.assert(
      fc.property(randomShow(4800), fc.array(fc.nat(5), { minLength: 1, maxLength: 8 }), ({ show: random }, order) => {
        const foot = newUnit('foot', 'Foot', 'FT', libraryProfile('display-controller'), { channel: 16 });
        const rigged: Show = { ...random, units: [...random.units, foot] };
        const plugs = random.units.filter((u) => u.input?.from === 'port').map((u) => ({ id: u.id, from: 'foot' }));
        const wired = applyEdit(
          rigged,
          changeFeet(rigged, 'foot', (f) => ({ ...f, boat: plugs }))!,
        );
        const added = addFootPage(wired, 'foot', 'Page', () => 'page', {
          switches: wired.tones.map((t, i) => newFootSwitch(`switch-${i + 1}`, [{ kind: 'tone', toneId: t.id }])),
        })!;
        const full = applyEdit(wired, added.edit);
        const boat = boatShow(full, 'foot');
        const rig = new SimulatedRig(rigSpec(boat));
        const memory = memoryOf(full, 'foot');
        let state = FOOT_AT_REST;
        let at = 0;
        const input = (kind: 'press' | 'release', place: number): void => {
          const step = footStep(memory, state, { kind, switch: place, at });
          state = step.state;
          for (const bytes of step.sends) rig.send(BOAT_PORT, at, bytes);
          at += 5e6;
          rig.advance(at);
        };
        for (const nth of order) {
          const place = nth % full.tones.length;
          input('press', place);
          input('release', place);
          const { wrong } = switchSends(full, 'foot', 'page', `switch-${place + 1}`);
          if (wrong.length > 0) continue;
          steps += 1;
          const now = rig.state();
          for (const [unitId, aim] of partAims(boat, full.tones[place]!)) {
            // A unit that is only told may be told otherwise: that is another finding.
            if (plugs.every((p) => p.id !== unitId) && unitId.startsWith('far')) continue;
            const { profile } = indexShow(full).units.get(unitId)!;
            expect([unitId, meets(profile, now[unitId]!, aim)]).toEqual([unitId, true]);
          }
        }
      }),
      runs(1401, 60),
    );
    expect(steps).toBeGreaterThan(0);
  });

  it('of random songs: what the sheet says to press is what the rehearsal proves, step by step', () => {
    let lit = 0;
    fc.assert(
      fc.property(randomShow(9600), ({ show: random, song }) => {
        const foot = newUnit('foot', 'Foot', 'FT', libraryProfile('display-controller'), { channel: 16 });
        const rigged: Show = { ...random, units: [...random.units, foot] };
        const plugs = random.units.filter((u) => u.input?.from === 'port').map((u) => ({ id: u.id, from: 'foot' }));
        const wired = applyEdit(
          rigged,
          changeFeet(rigged, 'foot', (f) => ({ ...f, boat: plugs }))!,
        );
        const inSet = { ...wired, ...inOrder([song.id]) };
        let n = 0;
        const full = applyEdit(
          inSet,
          takeProposal(inSet, propose(inSet, 'foot')!, () => `n${n++}`)!,
        );
        const { outcomes } = rehearse(full, 'foot', song)!;
        for (const { step, failed, after } of outcomes) {
          expect(step.presses).not.toBeNull();
          if (failed.length === 0) lit += 1;
          expect(after === null).toBe(failed.some((v) => v.offset === null));
        }
      }),
      runs(1402, 60),
    );
    expect(lit).toBeGreaterThan(0);
  });
});

describe('the mix by foot', () => {
  it('is turned from any page: the click, a stem, the part of a player', () => {
    const turned = on(
      show,
      newFootSwitch('switch-9', [
        { kind: 'turn', of: 'click', how: 'flip' },
        { kind: 'part', playerId: 'ines', how: 'on' },
      ]),
    );
    const does = pageReactions(turned).flatMap((r) =>
      r.does.kind === 'turn' || r.does.kind === 'part' ? [r.does] : [],
    );
    expect(does).toEqual([
      { kind: 'turn', of: 'click', how: 'flip' },
      { kind: 'part', playerId: 'ines', how: 'on' },
    ]);
    // Nothing of it goes to a unit: without the computer it is silent.
    expect(
      sends(turned, slack.id, 'switch-9').sends.flatMap((s) => s.messages.filter((m) => m.doing !== null)),
    ).toEqual([]);
    expect(sends(turned, slack.id, 'switch-9').name).toBe('Click');
  });
});
