import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { checkShow } from './checkShow';
import { showSchema, type Show } from '../schema';

type Loose = ReturnType<typeof showSchema.parse>;

/** The demo after something was done to it that no command does. */
function spoiled(spoil: (show: Loose) => void): Show {
  const show = showSchema.parse(structuredClone(demoShow()));
  spoil(show);
  // The shape is right: only what lies behind it is wrong.
  return showSchema.parse(show);
}

const unitIn = (show: Loose, has: (unit: Loose['units'][number]) => boolean): Loose['units'][number] =>
  show.units.find(has)!;
const named = (show: Loose) => unitIn(show, (u) => u.slots.length > 1);
const controlled = (show: Loose) => unitIn(show, (u) => u.profile.controls.length > 1);
const relaying = (show: Loose) => unitIn(show, (u) => u.relays.length > 0);
const varied = (show: Loose) => unitIn(show, (u) => u.profile.variants !== null && u.slots.length > 0);
const partOf = (show: Loose) => show.tones.flatMap((t) => t.parts).find((p) => p.controls.length > 0)!;
const songWith = (show: Loose, list: 'cues' | 'sections' | 'sweeps') => show.songs.find((s) => s[list].length > 1)!;
const sweepIn = (show: Loose) => show.songs.flatMap((s) => s.sweeps).find((s) => s.shape.kind === 'line')!;

/** What stands twice, under which end of its path. */
const TWICE: [what: string, end: RegExp, spoil: (show: Loose) => void][] = [
  ['player', /^players\.\d+$/, (s) => s.players.push(s.players[0]!)],
  ['port', /^ports\.\d+$/, (s) => s.ports.push(s.ports[0]!)],
  ['tone', /^tones\.\d+$/, (s) => s.tones.push(s.tones[0]!)],
  ['song', /^songs\.\d+$/, (s) => s.songs.push(s.songs[0]!)],
  ['slot', /slots\.\d+$/, (s) => (named(s).slots[1]!.id = named(s).slots[0]!.id)],
  [
    'slot',
    /lostSlots\.0$/,
    (s) => named(s).lostSlots.unshift({ id: named(s).slots[0]!.id, name: 'Gone', lastIndex: 3 }),
  ],
  [
    'control',
    /profile\.controls\.\d+$/,
    (s) => (controlled(s).profile.controls[1]!.id = controlled(s).profile.controls[0]!.id),
  ],
  [
    'effect',
    /profile\.effects\.\d+$/,
    (s) => {
      const { profile } = unitIn(s, (u) => u.profile.effects.length > 0);
      profile.effects.push(profile.effects[0]!);
    },
  ],
  [
    'sender',
    /profile\.senders\.\d+$/,
    (s) => {
      const { profile } = unitIn(s, (u) => u.profile.senders.length > 0);
      profile.senders.push(profile.senders[0]!);
    },
  ],
  ['relay', /relays\.\d+$/, (s) => relaying(s).relays.push(relaying(s).relays[0]!)],
  ['part', /^tones\.\d+\.parts\.\d+$/, (s) => s.tones[0]!.parts.push(s.tones[0]!.parts[0]!)],
  ['control', /parts\.\d+\.controls\.\d+$/, (s) => partOf(s).controls.push(partOf(s).controls[0]!)],
  ['cue', /cues\.\d+$/, (s) => (songWith(s, 'cues').cues[1]!.id = songWith(s, 'cues').cues[0]!.id)],
  ['section', /sections\.\d+$/, (s) => songWith(s, 'sections').sections.push(songWith(s, 'sections').sections[0]!)],
  ['entry of the set', /^sets\.0\.entries\.\d+$/, (s) => s.sets[0]!.entries.push(s.sets[0]!.entries[0]!)],
  ['set', /^sets\.1$/, (s) => s.sets.push(s.sets[0]!)],
  ['controller', /^feet\.\d+$/, (s) => s.feet.push(s.feet[0]!)],
  ['page', /^feet\.0\.pages\.\d+$/, (s) => s.feet[0]!.pages.push(s.feet[0]!.pages[0]!)],
  [
    'switch',
    /everywhere\.switches\.\d+$/,
    (s) => s.feet[0]!.everywhere.switches.push(s.feet[0]!.everywhere.switches[0]!),
  ],
  ['pedal', /everywhere\.pedals\.\d+$/, (s) => s.feet[0]!.everywhere.pedals.push(s.feet[0]!.everywhere.pedals[0]!)],
  ['reaction', /^reactions\.\d+$/, (s) => s.reactions.push(reacting(s), reacting(s))],
  [
    'unit',
    /tonight\.1$/,
    (s) => s.sets[0]!.tonight.push({ how: 'off', unitId: 'tarn' }, { how: 'off', unitId: 'tarn' }),
  ],
];

const entryOf = (s: Loose) =>
  s.sets[0]!.entries.find((e) => e.kind === 'song') as Extract<Loose['sets'][0]['entries'][0], { kind: 'song' }>;

const reacting = (s: Loose, does?: Loose['reactions'][0]['does']): Loose['reactions'][0] => ({
  id: 'r',
  name: '',
  on: true,
  songId: null,
  hears: { portId: null, kind: 'note', channel: null, number: null, low: 1, high: 127 },
  swallow: true,
  does: does ?? { kind: 'tone', toneId: s.tones[0]!.id },
});
const curve = { from: 0, to: 100, bend: 'straight' } as const;

const stepOn = (s: Loose, does: Loose['feet'][0]['everywhere']['switches'][0]['doings'][0]['does']): void => {
  s.feet[0]!.everywhere.switches[0]!.doings[0]!.does = does;
};
const pedalFor = (s: Loose, unitId: string, controlId: string): void => {
  s.feet[0]!.everywhere.pedals[0]!.does = { kind: 'control', unitId, controlId, from: 0, to: 1 };
};
const footProfile = (s: Loose) => unitIn(s, (u) => u.profile.controller !== null).profile;

/** What refers to nothing. */
const MISSING: [what: string, end: string, spoil: (show: Loose) => void][] = [
  ['player', 'playerId', (s) => (s.units[0]!.playerId = 'gone')],
  ['player', '0', (s) => s.sets[0]!.missing.push('gone')],
  ['unit', 'unitId', (s) => s.sets[0]!.tonight.push({ how: 'off', unitId: 'gone' })],
  ['port', 'followsPortId', (s) => (s.songs[0]!.followsPortId = 'gone')],
  ['song', 'songId', (s) => s.reactions.push({ ...reacting(s), songId: 'gone' })],
  ['port', 'portId', (s) => s.reactions.push({ ...reacting(s), hears: { ...reacting(s).hears, portId: 'gone' } })],
  ['song', 'songId', (s) => s.reactions.push(reacting(s, { kind: 'song', songId: 'gone', how: 'queue' }))],
  ['tone', 'toneId', (s) => s.reactions.push(reacting(s, { kind: 'tone', toneId: 'gone' }))],
  ['move', 'moveId', (s) => s.reactions.push(reacting(s, { kind: 'move', moveId: 'gone' }))],
  ['sound', 'audioId', (s) => s.reactions.push(reacting(s, { kind: 'sample', audioId: 'gone', gain: 0 }))],
  [
    'port',
    'portId',
    (s) => s.reactions.push(reacting(s, { kind: 'message', portId: 'gone', channel: 1, number: 1, curve })),
  ],
  [
    'unit',
    'unitId',
    (s) => s.reactions.push(reacting(s, { kind: 'control', unitId: 'gone', controlId: 'mix', curve })),
  ],
  [
    'control',
    'controlId',
    (s) => s.reactions.push(reacting(s, { kind: 'control', unitId: 'tarn', controlId: 'gone', curve })),
  ],
  ['unit', 'id', (s) => (s.feet[0]!.id = 'gone')],
  ['slot', 'id', (s) => s.feet[0]!.pages.push({ id: 'gone', songId: null, switches: [], pedals: [] })],
  ['song', 'songId', (s) => (s.feet[0]!.pages[1]!.songId = 'gone')],
  ['switch', 'id', (s) => (s.feet[0]!.everywhere.switches[0]!.id = 'gone')],
  ['pedal', 'id', (s) => (s.feet[0]!.everywhere.pedals[0]!.id = 'gone')],
  ['unit', '0', (s) => (s.feet[0]!.boat[0]!.from = 'gone')],
  ['tone', 'does', (s) => stepOn(s, { kind: 'tone', toneId: 'gone' })],
  ['move', 'does', (s) => stepOn(s, { kind: 'move', moveId: 'gone' })],
  ['song', 'does', (s) => stepOn(s, { kind: 'song', songId: 'gone', how: 'start' })],
  ['sound', 'does', (s) => stepOn(s, { kind: 'sample', audioId: 'gone', gain: 0 })],
  ['page', 'does', (s) => stepOn(s, { kind: 'page', to: { pageId: 'gone' } })],
  ['unit', 'unitId', (s) => stepOn(s, { kind: 'control', unitId: 'gone', controlId: 'mix', value: 0 })],
  ['unit', 'unitId', (s) => pedalFor(s, 'gone', 'mix')],
  ['control', 'controlId', (s) => pedalFor(s, 'tarn', 'gone')],
  ['sender', '0', (s) => (footProfile(s).controller!.switches[0]!.id = 'gone')],
  ['port', 'portId', (s) => (s.units[0]!.input = { from: 'port', portId: 'gone' })],
  ['unit', 'unitId', (s) => (s.units[0]!.input = { from: 'unit', unitId: 'gone', thru: true })],
  ['port', 'portId', (s) => (s.units[0]!.returns = { portId: 'gone', thru: false })],
  ['slot', 'slotId', (s) => (relaying(s).relays[0]!.when.slotId = 'gone')],
  ['unit', 'toUnitId', (s) => (relaying(s).relays[0]!.toUnitId = 'gone')],
  ['slot', 'toSlotId', (s) => (relaying(s).relays[0]!.toSlotId = 'gone')],
  ['control', '0', (s) => (unitIn(s, (u) => u.profile.effects.length > 0).profile.effects[0]!.cut = 'gone')],
  ['control', 'engage', (s) => (s.units[0]!.profile.engage = 'gone')],
  ['shared control number', 'houseId', (s) => (controlled(s).profile.controls[0]!.houseId = 'gone')],
  ['unit', 'unitId', (s) => (s.tones[0]!.parts[0]!.unitId = 'gone')],
  ['slot', 'slotId', (s) => (s.tones[0]!.parts[0]!.slotId = 'gone')],
  ['control', 'controlId', (s) => (partOf(s).controls[0]!.controlId = 'gone')],
  ['effect', 'effectId', (s) => s.tones[0]!.parts[0]!.effects.push({ effectId: 'gone', how: 'on' })],
  ['tone', 'openingToneId', (s) => (s.openingToneId = 'gone')],
  ['tone', 'openingToneId', (s) => (s.songs[0]!.openingToneId = 'gone')],
  ['tone', '0', (s) => (s.core[0] = 'gone')],
  ['song', 'songId', (s) => (entryOf(s).songId = 'gone')],
  ['tone', 'bridgeToneId', (s) => (entryOf(s).bridgeToneId = 'gone')],
  ['port', 'portId', (s) => (entryOf(s).launch = { portId: 'gone', bytes: 'C000', does: 'start' })],
  ['set', 'setId', (s) => (s.setId = 'gone')],
  ['tone', 'toneId', (s) => (songWith(s, 'cues').cues[0]!.action = { kind: 'tone', toneId: 'gone', reload: false })],
  ['move', 'moveId', (s) => (songWith(s, 'cues').cues[0]!.action = { kind: 'move', moveId: 'gone' })],
  ['unit', 'unitId', (s) => (songWith(s, 'cues').cues[0]!.action = { kind: 'message', unitId: 'gone', bytes: 'c000' })],
  ['unit', 'unitId', (s) => (sweepIn(s).unitId = 'gone')],
  ['control', 'controlId', (s) => (sweepIn(s).controlId = 'gone')],
  ['control', 'switchId', (s) => (sweepIn(s).switchId = 'gone')],
  [
    'sound',
    'audioId',
    (s) => (s.songs[0]!.announce = { how: 'sound', text: '', pattern: 'rise', audioId: 'gone', ahead: 1, count: 0 }),
  ],
  ['port', 'portId', (s) => s.songs[0]!.clocks.push({ id: 'new', portId: 'gone' })],
];

/** What is out of its range or order. */
const WRONG: [code: string, spoil: (show: Loose) => void][] = [
  [
    'controller.same-place',
    (s) => {
      const [one, two] = footProfile(s).controller!.switches;
      Object.assign(two!, { row: one!.row, column: one!.column });
    },
  ],
  ['show.sweep-selector', (s) => pedalFor(s, 'tarn', 'active')],
  ['show.value-range', (s) => stepOn(s, { kind: 'control', unitId: 'tarn', controlId: 'mix', value: 1e6 })],
  ['show.slot-range', (s) => (named(s).slots.at(-1)!.index = 65_000)],
  ['show.slot-shared', (s) => (named(s).slots[1]!.index = named(s).slots[0]!.index)],
  ['show.variant-range', (s) => (varied(s).slots[0]!.startVariant = 500)],
  ['show.variant-range', (s) => (s.tones[0]!.parts[0]!.variant = 500)],
  ['show.value-range', (s) => (partOf(s).controls[0]!.value = 1e6)],
  ['show.value-range', (s) => (controlled(s).profile.controls.find((c) => c.encoding.kind !== 'tap')!.rest = 1e6)],
  [
    'show.value-range',
    (s) => {
      const { shape } = sweepIn(s);
      if (shape.kind === 'line') shape.points[0]!.value = 1e6;
    },
  ],
  ['show.variants-reach', (s) => (varied(s).profile.variants!.names = Array.from({ length: 128 }, () => ''))],
  ['show.order', (s) => s.songs[0]!.tempo.push({ ...s.songs[0]!.tempo[0]! })],
  ['show.order', (s) => s.songs[0]!.metre.push({ ...s.songs[0]!.metre[0]! })],
  ['show.order', (s) => s.songs[0]!.printed.push({ bar: 4, number: 9 }, { bar: 4, number: 8 })],
  ['show.ramp-nowhere', (s) => (s.songs[0]!.tempo.at(-1)!.rampTo = 90)],
  ['show.sweep-empty', (s) => (sweepIn(s).to = sweepIn(s).from)],
];

const problemsOf = (spoil: (show: Loose) => void) => checkShow(spoiled(spoil));
const path = (p: ReturnType<typeof checkShow>[number]): string =>
  p.place.in === 'show' ? p.place.path.join('.') : p.place.in;

describe('a show', () => {
  it('of the demo has nothing wrong', () => expect(problemsOf(() => {})).toEqual([]));

  it.each(TWICE)('in which a %s stands twice is refused with its place (%s)', (what, end, spoil) => {
    const found = problemsOf(spoil).filter((p) => p.code === 'show.twice' && p.data.what === what);
    expect(found.map(path)).toContainEqual(expect.stringMatching(end));
  });

  it.each(MISSING)('that refers to a %s which is gone is refused with its place (%s)', (what, end, spoil) => {
    const found = problemsOf(spoil).filter((p) => p.code === 'show.missing' && p.data.what === what);
    expect(found).not.toEqual([]);
    expect(found.map((p) => path(p).split('.').at(-1))).toContain(end);
    expect(found.map((p) => (p.code === 'show.missing' ? p.data.id : ''))).toContain('gone');
  });

  it.each(WRONG)('with something out of its range or order is refused: %s', (code, spoil) => {
    expect(problemsOf(spoil).map((p) => p.code as string)).toContain(code);
  });

  it('finds ranges of reactions that end before they begin, and values that a control does not take', () => {
    const codes = (spoil: (show: Loose) => void): string[] => checkShow(spoiled(spoil)).map((p) => p.code);
    expect(
      codes((s) => s.reactions.push({ ...reacting(s), hears: { ...reacting(s).hears, low: 9, high: 8 } })),
    ).toEqual(['show.range']);
    const wah = { kind: 'switch', unitId: 'tarn', controlId: 'active', above: 5, below: 5, millis: 0 } as const;
    expect(codes((s) => s.reactions.push(reacting(s, wah)))).toEqual(['show.range']);
    const mix = { kind: 'control', unitId: 'tarn', controlId: 'mix', curve: { ...curve, to: 101 } } as const;
    expect(codes((s) => s.reactions.push(reacting(s, mix)))).toEqual(['show.value-range']);
  });
});
