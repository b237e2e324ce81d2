import { newPlayer, inOrder } from '../builders';
import { describe, expect, it } from 'vitest';
import { indexOfLabel, labelOf, newControl, onOff } from '../../addressing';
import { demoShow } from '../../demo';
import { newPort, newSlot, newUnit } from '../builders';
import { indexShow } from '../find';
import { applyEdit } from '../edits';
import type { Show } from '../schema';
import {
  addHouseNumber,
  addPlayer,
  addUnit,
  addVersion,
  captureOver,
  captureTone,
  changeProfile,
  copyMap,
  moveSlots,
  nameSlots,
  plugCable,
  pullCable,
  putRelay,
  removeHouseNumber,
  removePlayer,
  removePort,
  removeRelay,
  removeUnit,
  runOfNames,
  setHouseNumber,
  setPlayerField,
  setPortField,
  setSlotField,
  switchVersion,
  withControl,
  withoutControl,
  type ProfileChange,
} from './';
import { doingTo } from '../../testing/doing';

const show = demoShow();
let made = 0;
const newId = (): string => `made-${made++}`;
const unitOf = (s: Show, id: string) => indexShow(s).units.get(id)!;

const done = doingTo(show);

function changed(change: ProfileChange, from: Show = show): Show {
  if (!change.ok) throw new Error(JSON.stringify(change.problems));
  return done(change.edit, from);
}
const names = (s: Show, id: string) =>
  unitOf(s, id).slots.map((x) => [labelOf(unitOf(s, id).profile.plan, x.index), x.name]);

describe('runs of slots', () => {
  it('are named at once, in one edit', () => {
    const after = done(nameSlots(show, 'tarn', runOfNames(350, 3, 'Verse 09'), newId));
    expect(names(after, 'tarn').slice(-3)).toEqual([
      ['350', 'Verse 09'],
      ['351', 'Verse 10'],
      ['352', 'Verse 11'],
    ]);
    expect(runOfNames(5, 2, 'Dry')).toEqual([
      { index: 5, name: 'Dry' },
      { index: 6, name: 'Dry' },
    ]);
    expect(nameSlots(show, 'tarn', [{ index: 999, name: 'Past' }], newId)).toBeNull();
    const same = unitOf(show, 'tarn').slots.map(({ index, name }) => ({ index, name }));
    expect(nameSlots(show, 'tarn', same, newId)).toBeNull();
  });

  it('lose entries that nothing uses, and keep those that something does', () => {
    const gone = unitOf(show, 'quillback').slots.map(({ index }) => ({ index, name: '' }));
    const after = done(nameSlots(show, 'quillback', gone, newId));
    const used = new Set(
      show.tones.flatMap((t) => t.parts.filter((p) => p.unitId === 'quillback').map((p) => p.slotId)),
    );
    expect(unitOf(after, 'quillback').slots.filter((s) => used.has(s.id)).length).toBe(used.size);
  });

  it('move, and what lies between makes room; tones follow by identity', () => {
    const { plan } = unitOf(show, 'quillback').profile;
    const h6 = indexOfLabel(plan, 'H6')!;
    const after = done(moveSlots(show, 'quillback', h6, h6 + 2));
    expect(unitOf(after, 'quillback').slots.find((s) => s.id === 'quillback-h6')!.index).toBe(h6 + 2);
    const back = done(moveSlots(after, 'quillback', h6 + 2, h6), after);
    expect(back.units).toEqual(show.units);
    const two = done(moveSlots(show, 'quillback', 0, 10, 2));
    expect(unitOf(two, 'quillback').slots.map((s) => s.index)).toEqual(
      unitOf(two, 'quillback')
        .slots.map((s) => s.index)
        .toSorted((a, b) => a - b),
    );
    expect(moveSlots(show, 'quillback', 0, 179, 2)).toBeNull();
    expect(moveSlots(show, 'quillback', 5, 5)).toBeNull();
  });

  it('know what a preset brings along', () => {
    const start = [{ controlId: 'hold', value: 1 }];
    const after = done(setSlotField(show, 'tarn', 379, 'startControls', start, 'new'));
    expect(unitOf(after, 'tarn').slots.at(-1)).toMatchObject({ id: 'new', index: 379, name: '', startControls: start });
    expect(setSlotField(after, 'tarn', 379, 'startControls', start, 'x')).toBeNull();
    expect(done(setSlotField(after, 'tarn', 379, 'startControls', [], 'x'), after)).toBeTruthy();
  });
});

describe('a profile', () => {
  it('changes only where it has no fault, and keeps every named slot', () => {
    const { profile } = unitOf(show, 'quillback');
    const short = { ...profile, plan: { ...profile.plan, groups: [{ ...profile.plan.groups[0]!, count: 12 }] } };
    expect(changeProfile(show, 'quillback', short)).toMatchObject({
      ok: false,
      problems: [{ code: 'show.slot-range' }],
    });
    const faulty = {
      ...profile,
      plan: { ...profile.plan, groups: [profile.plan.groups[0]!, profile.plan.groups[0]!] },
    };
    expect(changeProfile(show, 'quillback', faulty)).toMatchObject({
      ok: false,
      problems: [{ code: 'plan.same-label' }],
    });
    expect(changeProfile(show, 'quillback', profile)).toEqual({ ok: true, edit: null, dropped: [] });
    expect(changeProfile(show, 'none', profile)).toEqual({ ok: true, edit: null, dropped: [] });
  });

  it('takes what tones said of a control with it, and tells', () => {
    const { profile } = unitOf(show, 'tarn');
    const change = changeProfile(show, 'tarn', withoutControl(profile, 'mix'));
    const after = changed(change);
    expect(
      after.tones.every((t) =>
        t.parts.every((p) => p.unitId !== 'tarn' || p.controls.every((c) => c.controlId !== 'mix')),
      ),
    ).toBe(true);
    const dropped = change.ok ? change.dropped : [];
    expect(dropped.length).toBeGreaterThan(0);
    expect(dropped.every((d) => d.where === 'tone' && d.what === 'mix')).toBe(true);
    const noSwitch = changed(changeProfile(show, 'tarn', withoutControl(profile, 'active')));
    expect(unitOf(noSwitch, 'tarn').profile.effects).toEqual([]);
  });

  it('gains and replaces controls', () => {
    const { profile } = unitOf(show, 'tarn');
    const more = withControl(profile, newControl('size', 'Size', onOff(74)));
    expect(unitOf(changed(changeProfile(show, 'tarn', more)), 'tarn').profile.controls.at(-1)!.name).toBe('Size');
    expect(withControl(more, newControl('size', 'Room', onOff(75))).controls).toHaveLength(more.controls.length);
  });

  it('goes over to other firmware and back, and says what tones lose', () => {
    const over = changed(switchVersion(show, 'thistle', 0));
    expect(unitOf(over, 'thistle').profile).toMatchObject({ firmware: '3.0', engage: null });
    expect(unitOf(over, 'thistle').versions[0]!.firmware).toBe('2.4');
    expect(changed(switchVersion(over, 'thistle', 0), over)).toEqual(show);
    expect(switchVersion(show, 'thistle', 7)).toEqual({ ok: true, edit: null, dropped: [] });
    const kept = done(addVersion(show, 'tarn', ' 2.0 '));
    expect(unitOf(kept, 'tarn').versions.map((v) => v.firmware)).toEqual(['2.0']);
    expect(addVersion(kept, 'tarn', '2.0')).toBeNull();
  });

  it('is copied to another unit, which keeps its place and the identity of its slots', () => {
    const twin = newUnit('twin', 'Twin', 'TW', unitOf(show, 'tarn').profile, {
      channel: 9,
      slots: [newSlot('own', 300, 'Mine')],
    });
    const two = done(addUnit(show, twin, null));
    const refused = copyMap(two, 'quillback', 'twin', false, newId);
    expect(refused).toMatchObject({ ok: false, problems: [{ code: 'show.slot-range' }] });
    const after = changed(copyMap(two, 'thistle', 'twin', false, newId), two);
    expect(unitOf(after, 'twin')).toMatchObject({ name: 'Twin', channel: 9, slots: [{ id: 'own', name: 'Mine' }] });
    expect(unitOf(after, 'twin').versions).toHaveLength(1);
  });

  it('brings named slots along where one wants it', () => {
    const twin = newUnit('twin', 'Twin', 'TW', unitOf(show, 'tarn').profile, { slots: [newSlot('own', 300, 'Mine')] });
    const two = done(addUnit(show, twin, null));
    const after = changed(copyMap(two, 'tarn', 'twin', true, newId), two);
    const slots = unitOf(after, 'twin').slots;
    expect(slots.map((s) => s.name)).toEqual(unitOf(show, 'tarn').slots.map((s) => s.name));
    expect(slots.find((s) => s.index === 300)!.id).toBe('own');
  });
});

describe('shared control numbers', () => {
  const numberOf = (s: Show, unitId: string, id: string): unknown => {
    const e = unitOf(s, unitId).profile.controls.find((c) => c.id === id)!.encoding;
    return 'number' in e ? e.number : undefined;
  };

  it('change on every unit at once', () => {
    const after = done(setHouseNumber(show, 'house-tuner', { name: 'Mute and tune', number: 69 }));
    expect(numberOf(after, 'quillback', 'tuner')).toBe(69);
    expect(numberOf(after, 'marram', 'tuner')).toBe(69);
    expect(setHouseNumber(show, 'house-tuner', { name: 'Tuner', number: 68 })).toBeNull();
    expect(setHouseNumber(show, 'house-tuner', { name: '', number: 3 })).toBeNull();
    expect(setHouseNumber(show, 'house-tuner', { name: 'x', number: 128 })).toBeNull();
  });

  it('come and go; controls keep their number', () => {
    const more = done(addHouseNumber(show, { id: 'wah', name: 'Wah', number: 11 }));
    expect(more.house).toHaveLength(3);
    const less = done(removeHouseNumber(show, 'house-tuner'));
    expect(numberOf(less, 'quillback', 'tuner')).toBe(68);
    expect(unitOf(less, 'quillback').profile.controls.every((c) => c.houseId !== 'house-tuner')).toBe(true);
    expect(removeHouseNumber(show, 'none')).toBeNull();
  });

  it('are brought along by a unit, and found again by name', () => {
    const unit = { ...unitOf(show, 'marram'), id: 'other', input: null, playerId: null };
    const bare: Show = {
      ...show,
      house: [],
      units: [],
      tones: [],
      reactions: [],
      feet: [],
      openingToneId: null,
      core: [],
      moves: [],
      songs: [],
      ...inOrder([]),
    };
    const alone = done(addUnit(bare, unit, null, show.house), bare);
    expect(alone.house).toEqual(show.house);
    const renamed = show.house.map((h) => ({ ...h, id: `x-${h.id}` }));
    const lifted = {
      ...unit,
      profile: {
        ...unit.profile,
        controls: unit.profile.controls.map((c) => (c.houseId === null ? c : { ...c, houseId: `x-${c.houseId}` })),
      },
    };
    const found = done(addUnit(show, lifted, null, renamed));
    expect(found.house).toEqual(show.house);
    expect(unitOf(found, 'other').profile).toEqual(unit.profile);
    const clash = [{ id: 'house-tuner', name: 'Other thing', number: 3 }];
    const both = done(addUnit(show, unit, null, clash));
    expect(both.house.map((h) => h.id)).toEqual(['house-tuner', 'house-tap', 'house-tuner-2']);
  });
});

describe('cables', () => {
  const portOut = { of: 'port', id: show.ports[0]!.id, socket: 'out' } as const;
  const portIn = { ...portOut, socket: 'in' } as const;
  const unit = (id: string, socket: 'in' | 'out' | 'thru') => ({ of: 'unit', id, socket }) as const;

  it('are put in from either end, and pulled', () => {
    const after = done(plugCable(show, unit('tarn', 'in'), unit('harrow', 'thru')));
    expect(unitOf(after, 'tarn').input).toEqual({ from: 'unit', unitId: 'harrow', thru: true });
    expect(plugCable(after, unit('harrow', 'thru'), unit('tarn', 'in'))).toBeNull();
    expect(unitOf(done(plugCable(after, portOut, unit('tarn', 'in')), after), 'tarn').input).toEqual({
      from: 'port',
      portId: portOut.id,
    });
    expect(unitOf(done(plugCable(show, portIn, unit('tarn', 'out'))), 'tarn').returns).toEqual({
      portId: portIn.id,
      thru: false,
    });
    expect(unitOf(done(pullCable(show, 'tarn', 'input')), 'tarn').input).toBeNull();
    expect(pullCable(show, 'tarn', 'returns')).toBeNull();
  });

  it('do not join what cannot be joined', () => {
    expect(plugCable(show, unit('tarn', 'in'), unit('harrow', 'in'))).toBeNull();
    expect(plugCable(show, unit('tarn', 'in'), unit('tarn', 'thru'))).toBeNull();
    expect(plugCable(show, portOut, portIn)).toBeNull();
    expect(plugCable(show, portOut, unit('nobody', 'in'))).toBeNull();
  });
});

describe('the rig', () => {
  it('loses a unit with all that refers to it', () => {
    for (const unit of show.units) {
      const after = done(removeUnit(show, unit.id));
      expect(JSON.stringify([after.tones, after.units.map((u) => [u.input, u.relays])])).not.toContain(`"${unit.id}"`);
    }
    expect(removeUnit(show, 'none')).toBeNull();
  });

  it('loses a port and pulls its cables', () => {
    const after = done(removePort(show, show.ports[0]!.id));
    expect(after.units.some((u) => u.input?.from === 'port' && u.input.portId === show.ports[0]!.id)).toBe(false);
    expect(removePort(show, 'none')).toBeNull();
    expect(done(setPortField(show, show.ports[0]!.id, 'softThru', true)).ports[0]!.softThru).toBe(true);
  });

  it('has players, who leave their units behind', () => {
    const more = done(addPlayer(show, newPlayer('p', 'Sten', 'drums')));
    expect(done(setPlayerField(more, 'p', 'part', 'cymbals'), more).players.at(-1)!.part).toBe('cymbals');
    expect(setPlayerField(more, 'p', 'name', ' ')).toBeNull();
    const { id } = show.players[0]!;
    expect(done(removePlayer(show, id)).units.some((u) => u.playerId === id)).toBe(false);
  });

  it('loses the relay rules of variants that it has no more, and no others', () => {
    const { profile, relays } = unitOf(show, 'quillback');
    const [rule] = relays;
    const ruled = [
      { ...rule!, id: 'lost', when: { slotId: null, variant: 2 } },
      { ...rule!, id: 'kept', when: { slotId: null, variant: 1 } },
      { ...rule!, id: 'any', when: { slotId: 'quillback-h6', variant: null } },
    ];
    const before: Show = {
      ...show,
      units: show.units.map((u) => (u.id === 'quillback' ? { ...u, relays: ruled } : u)),
    };
    const few = { ...profile.variants!, names: profile.variants!.names.slice(0, 2) };
    const encoding = { ...few.encoding, count: 2 } as typeof few.encoding;
    const change = changeProfile(before, 'quillback', { ...profile, variants: { ...few, encoding } });
    if (!change.ok || !change.edit) throw new Error('the profile is not taken');
    const { relays: after } = unitOf(applyEdit(before, change.edit), 'quillback');
    expect(after.map((r) => r.id)).toEqual(['kept', 'any']);
  });

  it('has relay rules, to slots that are there', () => {
    const rule = {
      id: 'new',
      when: { slotId: 'quillback-h6', variant: 3 },
      toUnitId: 'oxbow',
      toSlotId: unitOf(show, 'oxbow').slots[0]!.id,
    };
    const after = done(putRelay(show, 'quillback', rule));
    expect(unitOf(after, 'quillback').relays.at(-1)).toEqual(rule);
    expect(putRelay(after, 'quillback', rule)).toBeNull();
    expect(done(putRelay(after, 'quillback', { ...rule, when: { slotId: null, variant: 1 } }), after)).toBeTruthy();
    expect(putRelay(show, 'quillback', { ...rule, toSlotId: 'none' })).toBeNull();
    expect(done(removeRelay(after, 'quillback', 'new'), after)).toEqual(show);
  });

  it('gets a new port with a unit', () => {
    const unit = newUnit('u', 'U', 'U', unitOf(show, 'tarn').profile, { input: { from: 'port', portId: 'p9' } });
    expect(done(addUnit(show, unit, newPort('p9', 'Port 9', 'usb'))).ports.at(-1)).toMatchObject({
      id: 'p9',
      cable: 'usb',
    });
  });
});

describe('capture', () => {
  const unknown = { slot: null, bank: null, variant: null, controls: {} } as const;
  const rig = {
    ...Object.fromEntries(show.units.map((u) => [u.id, unknown])),
    quillback: { slot: 47, bank: 0, variant: 2, controls: { drive: 1 } },
    tarn: { slot: 379, bank: 2, variant: null, controls: { mix: 33.333333 } },
    thistle: { slot: 90, bank: 0, variant: null, controls: { active: 1, feedback: 40 } },
  };

  it('writes what is known of the rig into a new tone, and names slots that nobody had', () => {
    const after = done(captureTone(show, rig, 'new', 'By ear', newId));
    const { parts } = after.tones.at(-1)!;
    expect(parts.map((p) => p.unitId)).toEqual(['quillback', 'thistle', 'tarn']);
    expect(parts[0]).toMatchObject({
      slotId: 'quillback-h6',
      variant: 2,
      controls: [{ controlId: 'drive', value: 1 }],
    });
    // That the recalled preset is engaged goes without saying.
    expect(parts[1]!.controls.map((c) => c.controlId)).toEqual(['feedback']);
    expect(parts[2]!.controls).toEqual([{ controlId: 'mix', value: 33.33 }]);
    expect(unitOf(after, 'tarn').slots.find((s) => s.index === 379)).toMatchObject({ name: '' });
    expect(captureTone(show, {}, 'x', 'X', newId)).toBeNull();
  });

  it('leaves a unit that only relay rules reach to them, or calls what calls it', () => {
    // Oxbow Forty hears nothing but what Quillback sends on.
    const oxbow = { slot: 2, bank: null, variant: null, controls: {} };
    const parts = (of: Parameters<typeof captureTone>[1]) =>
      done(captureTone(show, of, 'new', 'By ear', newId)).tones.at(-1)!.parts;
    expect(parts({ ...rig, oxbow }).map((p) => p.unitId)).toEqual(['quillback', 'thistle', 'tarn']);
    const rule = unitOf(show, 'quillback').relays.find(
      (r) => unitOf(show, 'oxbow').slots.find((s) => s.id === r.toSlotId)?.index === 2,
    )!;
    expect(parts({ ...rig, quillback: unknown, oxbow })[0]).toMatchObject({ unitId: 'quillback', ...rule.when });
    // What is known of the caller's controls stays.
    const drive = { ...unknown, controls: { drive: 1 } };
    expect(parts({ quillback: drive, oxbow })).toMatchObject([
      { unitId: 'quillback', slotId: rule.when.slotId, controls: [{ controlId: 'drive', value: 1 }] },
    ]);
    expect(captureTone(show, { oxbow: { ...oxbow, slot: 99 } }, 'x', 'X', newId)).toBeNull();
    expect(captureOver(show, { ...rig, oxbow }, 'ledger-rhythm', 'oxbow', newId)).toBeNull();
  });

  it('writes one unit over its part of a tone', () => {
    const after = done(captureOver(show, rig, 'ledger-rhythm', 'tarn', newId));
    const part = (s: Show) => s.tones.find((t) => t.id === 'ledger-rhythm')!.parts.find((p) => p.unitId === 'tarn')!;
    expect(part(after).controls).toEqual([{ controlId: 'mix', value: 33.33 }]);
    expect(captureOver(after, rig, 'ledger-rhythm', 'tarn', newId)).toBeNull();
    expect(captureOver(show, rig, 'ledger-rhythm', 'marram', newId)).toBeNull();
  });
});
