import { setOf, songEntries } from '../find';
import { songEntry } from '../builders';
import { describe, expect, it } from 'vitest';
import { demoShow } from '../../demo';
import { newPort, newSong, newTone, newUnit, toneCue } from '../builders';
import type { Show } from '../schema';
import {
  addSong,
  addTone,
  addUnit,
  changeCue,
  moveInSet,
  nameSlot,
  placeCue,
  removeCue,
  removeSong,
  removeTone,
  renameTone,
  setToneNotes,
  setShowTitle,
  setSongField,
  setTonePart,
  setUnitField,
  slotAt,
  slotTitle,
  slotUses,
  toneUses,
} from './';
import { doingTo } from '../../testing/doing';

const show = demoShow();

const done = doingTo(show);
const cueIds = (s: Show, songId = 'slack-tide'): string[] =>
  s.songs.find((x) => x.id === songId)!.cues.map((c) => c.id);

describe('slots', () => {
  it('get a name, and an entry in the order of their places', () => {
    const after = done(nameSlot(show, 'quillback', 53, '  Winter Gull ', 'new'));
    expect(slotAt(after, 'quillback', 53)).toEqual({
      id: 'new',
      index: 53,
      name: 'Winter Gull',
      startVariant: null,
      startControls: [],
      panel: [],
      recall: null,
    });
    const indexes = after.units[0]!.slots.map((s) => s.index);
    expect(indexes).toEqual(indexes.toSorted((a, b) => a - b));
    expect(slotTitle(after, 'quillback', 'new')).toBe('I6 Winter Gull');
  });

  it('keep their identity when they are renamed, so that tones follow', () => {
    const after = done(nameSlot(show, 'quillback', 47, 'Fog Horn', 'unused'));
    expect(slotAt(after, 'quillback', 47)).toMatchObject({ id: 'quillback-h6', name: 'Fog Horn' });
    expect(slotUses(after, 'quillback', 'quillback-h6')).toEqual(['fog-lead', 'fog-lead-wide']);
  });

  it('lose their entry with their name, unless something uses them', () => {
    expect(slotAt(done(nameSlot(show, 'quillback', 0, '', 'x')), 'quillback', 0)).toBeUndefined();
    expect(slotAt(done(nameSlot(show, 'quillback', 47, '', 'x')), 'quillback', 47)).toMatchObject({ name: '' });
    expect(slotAt(done(nameSlot(show, 'oxbow', 1, ' ', 'x')), 'oxbow', 1)).toMatchObject({ name: '' });
  });

  it('change nothing where nothing would change, or where there is no such slot', () => {
    expect(nameSlot(show, 'quillback', 47, 'Fog Lead', 'x')).toBeNull();
    expect(nameSlot(show, 'quillback', 53, '', 'x')).toBeNull();
    expect(nameSlot(show, 'quillback', 180, 'Past', 'x')).toBeNull();
    expect(nameSlot(show, 'nobody', 0, 'X', 'x')).toBeNull();
    expect(slotTitle(show, 'quillback', 'none')).toBe('');
  });
});

describe('tones', () => {
  it('are added, renamed, and taken away while nothing uses them', () => {
    const after = done(addTone(show, newTone('t', 'Tone')));
    expect(after.tones.at(-1)!.name).toBe('Tone');
    expect(done(renameTone(after, 't', ' Gull '), after).tones.at(-1)!.name).toBe('Gull');
    expect(renameTone(after, 't', '  ')).toBeNull();
    expect(done(setToneNotes(after, 't', ' for the harp '), after).tones.at(-1)!.notes).toBe('for the harp');
    expect(setToneNotes(after, 't', ' ')).toBeNull();
    expect(setToneNotes(after, 'nowhere', 'x')).toBeNull();
    expect(renameTone(after, 't', 'Tone')).toBeNull();
    expect(done(removeTone(after, 't'), after).tones).toEqual(show.tones);
    expect(removeTone(show, 'fog-lead')).toBeNull();
    expect(removeTone(show, 'none')).toBeNull();
  });

  it('know the songs that use them, also as their opening', () => {
    expect(toneUses(show, 'ledger-rhythm')).toEqual([
      'slack-tide',
      'rope-ledger',
      'gull-arithmetic',
      'lamp-round',
      'last-boat',
    ]);
    expect(toneUses(show, 'none')).toEqual([]);
  });

  it('take units in, change what they want of them, and leave them out', () => {
    const part = { unitId: 'tarn', slotId: 'tarn-300', variant: null, controls: [], effects: [] };
    const added = done(setTonePart(show, 'ledger-echo', 'tarn', part));
    expect(added.tones.find((t) => t.id === 'ledger-echo')!.parts.at(-1)).toEqual(part);
    const changed = done(
      setTonePart(added, 'ledger-echo', 'tarn', { ...part, controls: [{ controlId: 'mix', value: 40 }], effects: [] }),
      added,
    );
    expect(changed.tones.find((t) => t.id === 'ledger-echo')!.parts.at(-1)!.controls).toHaveLength(1);
    expect(done(setTonePart(changed, 'ledger-echo', 'tarn', null), changed)).toEqual(show);
    expect(setTonePart(added, 'ledger-echo', 'tarn', part)).toBeNull();
    expect(setTonePart(show, 'ledger-echo', 'tarn', null)).toBeNull();
    expect(setTonePart(show, 'none', 'tarn', part)).toBeNull();
  });
});

describe('cues', () => {
  it('stand in the order of their places, behind those at the same place', () => {
    const at = show.songs[0]!.cues[2]!.at;
    const after = done(placeCue(show, 'slack-tide', toneCue('new', at, 'undertow')));
    expect(cueIds(after).indexOf('new')).toBe(3);
    expect(cueIds(done(placeCue(show, 'slack-tide', toneCue('end', 1e6, 'undertow')))).at(-1)).toBe('end');
    expect(placeCue(show, 'none', toneCue('x', 0, 'undertow'))).toBeNull();
  });

  it('move to their place among the others', () => {
    const last = show.songs[0]!.cues.at(-1)!;
    const after = done(changeCue(show, 'slack-tide', 'slack-tide-cue-1', { at: last.at + 1 }));
    expect(cueIds(after).at(-1)).toBe('slack-tide-cue-1');
    const muted = done(changeCue(show, 'slack-tide', 'slack-tide-cue-1', { muted: true }));
    expect(cueIds(muted)).toEqual(cueIds(show));
    expect(changeCue(show, 'slack-tide', 'slack-tide-cue-1', { muted: false })).toBeNull();
    expect(changeCue(show, 'slack-tide', 'none', { muted: true })).toBeNull();
  });

  it('are taken away', () => {
    expect(cueIds(done(removeCue(show, 'slack-tide', 'slack-tide-cue-1')))).not.toContain('slack-tide-cue-1');
    expect(removeCue(show, 'slack-tide', 'none')).toBeNull();
    expect(removeCue(show, 'none', 'slack-tide-cue-1')).toBeNull();
  });
});

describe('songs and set', () => {
  it('come into the show and the set together, and leave both', () => {
    const after = done(addSong(show, newSong('new', 'New'), 'entry'));
    expect(setOf(after).entries.at(-1)).toEqual(songEntry('entry', 'new'));
    const without = done(removeSong(show, 'fog-bell'));
    expect(
      songEntries(without)
        .slice(0, 3)
        .map((e) => e.songId),
    ).toEqual(['slack-tide', 'rope-ledger', 'gull-arithmetic']);
    expect(removeSong(show, 'none')).toBeNull();
  });

  it('change their order and their fields', () => {
    expect(
      songEntries(done(moveInSet(show, 0, 2)))
        .slice(0, 4)
        .map((e) => e.songId),
    ).toEqual(['rope-ledger', 'fog-bell', 'slack-tide', 'gull-arithmetic']);
    expect(moveInSet(show, 1, 1)).toBeNull();
    expect(moveInSet(show, 0, 9)).toBeNull();
    expect(done(setSongField(show, 'fog-bell', 'preRoll', 500)).songs[2]!.preRoll).toBe(500);
    expect(setSongField(show, 'fog-bell', 'title', 'Fog Bell')).toBeNull();
    expect(done(setShowTitle(show, ' Pier ')).title).toBe('Pier');
    expect(setShowTitle(show, '')).toBeNull();
  });
});

describe('the rig', () => {
  it('gets units, with the port that they hang on where it is new', () => {
    const unit = newUnit('new', 'New', 'NE', show.units[0]!.profile, { input: { from: 'port', portId: 'p9' } });
    const after = done(addUnit(show, unit, newPort('p9', 'Port 9', 'din')));
    expect(after.ports.at(-1)!.id).toBe('p9');
    expect(after.units.at(-1)!.id).toBe('new');
    expect(done(addUnit(show, { ...unit, input: null }, null)).ports).toBe(show.ports);
    expect(done(setUnitField(show, 'tarn', 'channel', 9)).units[5]!.channel).toBe(9);
    expect(setUnitField(show, 'tarn', 'channel', 7)).toBeNull();
  });
});
