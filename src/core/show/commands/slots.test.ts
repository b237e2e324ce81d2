import { describe, expect, it } from 'vitest';
import { addressOf, labelOf, slotCount } from '../../addressing';
import { demoShow } from '../../demo';
import { newSlot } from '../builders';
import { applyEdit } from '../edits';
import { indexShow, openingOf } from '../find';
import type { Show } from '../schema';
import { nameSlot, slotAt, slotDependents, slotTitle, slotUses, songsBySlot } from './slots';
import { doingTo } from '../../testing/doing';

const show = demoShow();
const unit = show.units.find((u) => show.tones.some((t) => t.parts.some((p) => p.unitId === u.id && p.slotId)))!;
const used = unit.slots.find((s) => slotUses(show, unit.id, s.id).length > 0)!;
const free = Array.from({ length: slotCount(unit.profile.plan) }, (_, i) => i).find(
  (i) => i > 0 && !slotAt(show, unit.id, i),
)!;

const named = (from: Show, index: number, name: string): Show =>
  doingTo(from)(nameSlot(from, unit.id, index, name, 'new'));

describe('naming a slot', () => {
  it('that nobody named yet gives it an entry, in its place', () => {
    const after = named(show, free, '  Low Water ');
    expect(slotAt(after, unit.id, free)).toEqual(newSlot('new', free, 'Low Water'));
    const places = indexShow(after)
      .units.get(unit.id)!
      .slots.map((s) => s.index);
    expect(places).toEqual([...places].sort((a, b) => a - b));
  });

  it('anew keeps what refers to it', () => {
    const after = named(show, used.index, 'Other water');
    expect(slotAt(after, unit.id, used.index)).toEqual({ ...used, name: 'Other water' });
    expect(slotTitle(after, unit.id, used.id)).toBe(`${labelOf(unit.profile.plan, used.index)} Other water`);
  });

  it('with nothing takes the entry away, but not from under a tone, nor with what somebody wrote about it', () => {
    const entry = named(show, free, 'Low Water');
    expect(named(entry, free, ' ')).toEqual(show);
    expect(slotAt(named(show, used.index, ''), unit.id, used.index)).toEqual({ ...used, name: '' });
    const noted: Show = {
      ...show,
      units: show.units.map((u) =>
        u.id === unit.id
          ? { ...u, slots: [...u.slots, { ...newSlot('n', free, 'Low'), panel: [{ name: 'Gain', setting: '7' }] }] }
          : u,
      ),
    };
    expect(slotAt(applyEdit(noted, nameSlot(noted, unit.id, free, '', 'x')!), unit.id, free)).toMatchObject({
      name: '',
      panel: [{ name: 'Gain', setting: '7' }],
    });
  });

  it('keeps a name that a relay rule hangs on', () => {
    const from = show.units.find((u) => u.relays.length > 0)!;
    const { toUnitId, toSlotId } = from.relays[0]!;
    const target = indexShow(show).slots(toUnitId).get(toSlotId)!;
    const after = applyEdit(show, nameSlot(show, toUnitId, target.index, '', 'x')!);
    expect(indexShow(after).slots(toUnitId).has(toSlotId)).toBe(true);
  });

  it('changes nothing where there is nothing to change', () => {
    expect(nameSlot(show, unit.id, used.index, used.name, 'x')).toBeNull();
    expect(nameSlot(show, unit.id, free, '  ', 'x')).toBeNull();
    expect(nameSlot(show, unit.id, -1, 'Low', 'x')).toBeNull();
    expect(nameSlot(show, unit.id, slotCount(unit.profile.plan), 'Low', 'x')).toBeNull();
    expect(nameSlot(show, 'gone', 0, 'Low', 'x')).toBeNull();
  });

  it('cuts a name that is too long for a show', () => {
    expect(slotAt(named(show, free, 'x'.repeat(5000)), unit.id, free)!.name).toHaveLength(120);
  });
});

describe('what hangs on slots', () => {
  /** Told the long way round: every song, every tone that it uses, every part. */
  const songsOf = (slotId: string): string[] =>
    show.songs
      .filter((song) => {
        const tones = song.cues.flatMap((c) => (c.action.kind === 'tone' ? [c.action.toneId] : []));
        return [openingOf(show, song), ...tones].some((id) =>
          show.tones.find((t) => t.id === id)?.parts.some((p) => p.unitId === unit.id && p.slotId === slotId),
        );
      })
      .map((s) => s.id);

  it('is every song in which a tone of theirs sounds', () => {
    const found = songsBySlot(show, unit.id);
    for (const { id } of unit.slots) expect([...(found.get(id) ?? [])].sort()).toEqual(songsOf(id).sort());
  });

  it('is counted once for several slots', () => {
    const all = new Set(unit.slots.map((s) => s.id));
    const songs = new Set([...all].flatMap(songsOf));
    const tones = show.tones.filter((t) => t.parts.some((p) => p.unitId === unit.id && p.slotId !== null));
    expect(slotDependents(show, unit.id, all)).toMatchObject({ tones: tones.length, songs: songs.size });
    expect(slotDependents(show, unit.id, new Set())).toEqual({ tones: 0, songs: 0, relays: 0 });
  });

  it('is nothing for a slot that is not there', () => {
    expect(slotTitle(show, unit.id, 'gone')).toBe('');
    expect(slotTitle(show, 'gone', used.id)).toBe('');
    expect(addressOf(unit.profile.plan, used.index)).not.toBeNull();
  });
});
