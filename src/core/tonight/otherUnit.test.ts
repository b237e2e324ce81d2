import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { labelOf, onOff, slotCount } from '../addressing';
import { checkRig, checkSong } from '../checks';
import { compileSong } from '../compile';
import { demoShow } from '../demo';
import { libraryProfile } from '../library';
import {
  applyEdit,
  checkShow,
  indexShow,
  newSlot,
  setTonight,
  showSchema,
  songsOfSet,
  usedSlots,
  type Show,
} from '../show';
import { proveSong } from '../proof';
import { randomShow } from '../testing/randomShow';
import { runs } from '../testing/runs';
import { matchOther, noMatches, otherUnitOf, tonightOf, writtenOf, type OtherUnit } from '.';

const demo = demoShow();
const harrow = indexShow(demo).units.get('harrow')!;
/** A reverb in the place of the harmoniser: its presets named alike, at other places. */
const profile = libraryProfile('reverb') ?? indexShow(demo).units.get('tarn')!.profile;
const fieldBox = (change: Partial<OtherUnit> = {}): OtherUnit => ({
  ...otherUnitOf(
    'harrow',
    {
      name: 'Field Box',
      profile,
      channel: 11,
      slots: harrow.slots.map((s, i) => newSlot(`f${i}`, 20 + i, s.name)),
    },
    'board',
  ),
  ...change,
});
const as = (other: OtherUnit, show: Show = demo): Show => applyEdit(show, setTonight(show, other.unitId, other)!);

/** Only what tones call by their presets is left of a unit's parts. */
const presetsOnly: Show = {
  ...demo,
  tones: demo.tones.map((t) => ({
    ...t,
    parts: t.parts.map((p) => (p.unitId === 'harrow' ? { ...p, variant: null, controls: [], effects: [] } : p)),
  })),
};

describe('another unit in the place of one, for a night', () => {
  it('is read and written with the show, and names a port that is there', () => {
    const show = as(fieldBox());
    expect(showSchema.safeParse(show).success).toBe(true);
    expect(checkShow(show)).toEqual([]);
    expect(checkShow(as(fieldBox({ portId: 'gone' }))).map((p) => p.code)).toEqual(['show.missing']);
  });

  it('is sent what its own map has for presets of the same name, on its own channel and port', () => {
    const show = as(fieldBox(), presetsOnly);
    const tonight = tonightOf(show);
    const unit = indexShow(tonight).units.get('harrow')!;
    expect(unit).toMatchObject({ name: 'Field Box', channel: 11, listens: 11, input: { portId: 'board' } });
    let sent = 0;
    for (const [i, song] of tonight.songs.entries()) {
      const before = compileSong(demo, demo.songs[i]!).events.filter((e) => e.unitId === 'harrow');
      const events = compileSong(tonight, song).events.filter((e) => e.unitId === 'harrow');
      expect(events.every((e) => (e.bytes[0]! & 15) === 10 && e.portId === 'board')).toBe(true);
      if (before.length > 0) sent += events.length;
    }
    expect(sent).toBeGreaterThan(3);
    const cracked = songsOfSet(tonight).flatMap((s) =>
      Object.values(proveSong(tonight, s, 'test').proofs).filter((p) =>
        p.verdicts.some((v) => v.unitId === 'harrow' && v.outcome === 'never'),
      ),
    );
    expect(cracked).toEqual([]);
    expect(writtenOf(tonight)).toBe(show);
  });

  it('cracks where it has nothing of the name, sends nothing for it, and says so at the cue', () => {
    const [gone] = harrow.slots;
    const show = as(fieldBox({ slots: fieldBox().slots.filter((s) => s.name !== gone!.name) }), presetsOnly);
    const tonight = tonightOf(show);
    const beyond = slotCount(profile.plan);
    let found = 0;
    for (const song of songsOfSet(tonight)) {
      const { compiled, proofs } = { compiled: compileSong(tonight, song), ...proveSong(tonight, song, 'test') };
      const findings = checkSong(tonight, song).filter((f) => f.code === 'song.no-match');
      for (const f of findings) expect(f.data).toMatchObject({ unit: 'Field Box', missing: [{ name: gone!.name }] });
      const never = Object.values(proofs).flatMap((p) =>
        p.verdicts.filter((v) => v.unitId === 'harrow' && v.outcome === 'never' && p.lantern === 'cracked'),
      );
      found += findings.length;
      expect(never.length > 0).toBe(findings.length > 0);
      // Nothing that is sent calls a place that it has not got.
      const programs = compiled.events.filter((e) => e.unitId === 'harrow' && e.bytes[0]! >> 4 === 0xc);
      expect(programs.every((e) => e.bytes[1]! < beyond)).toBe(true);
    }
    expect(found).toBeGreaterThan(0);
  });

  it('takes what somebody said for what has no name alike, and nothing where they said nothing does', () => {
    const [first, second] = harrow.slots.filter((s) => usedSlots(demo, 'harrow').has(s.id));
    const renamed = fieldBox().slots.map((s) => ({ ...s, name: `${s.name} II` }));
    const none = fieldBox({ slots: renamed });
    const used = [...matchOther(demo, harrow, none).slots];
    expect(used.every(([, s]) => s === null)).toBe(true);
    const said = {
      ...none,
      matches: { slots: { [first!.id]: renamed[1]!.id, [second!.id]: null }, variants: {}, controls: {} },
    };
    const match = matchOther(demo, harrow, said);
    expect(match.slots.get(first!.id)).toBe(renamed[1]);
    expect(match.slots.get(second!.id)).toBeNull();
    const back = matchOther(demo, harrow, fieldBox({ matches: { ...said.matches, slots: { [first!.id]: null } } }));
    expect(back.slots.get(first!.id)).toBeNull();
  });

  it('has the controls of the same name or shared number under our ids, and leaves out what it has not', () => {
    const quillback = indexShow(demo).units.get('quillback')!;
    const tuner = quillback.profile.controls.find((c) => c.name === 'Tuner')!;
    const other = otherUnitOf(
      'quillback',
      {
        ...quillback,
        name: 'Fly Rig',
        profile: {
          ...quillback.profile,
          engage: null,
          effects: [],
          controls: [{ ...tuner, id: 'x1', name: 'Silence', encoding: onOff(99) }],
        },
      },
      null,
    );
    const tonight = tonightOf(as(other));
    const unit = indexShow(tonight).units.get('quillback')!;
    // By its shared number, whatever it is called.
    expect(unit.profile.controls.map((c) => [c.id, c.name])).toEqual([[tuner.id, 'Silence']]);
    expect(unit.input).toEqual(quillback.input);
    const out = checkRig(tonight).filter((f) => f.code === 'rig.left-out');
    expect(out.length).toBeGreaterThan(0);
    for (const f of out) expect(f.data).toMatchObject({ unit: 'Fly Rig' });
    for (const song of tonight.songs) expect(() => compileSong(tonight, song)).not.toThrow();
  });

  it('of any kind never throws, wants what tones want, and cracks each cue that lacks something', () => {
    let [tried, lacking] = [0, 0];
    fc.assert(
      fc.property(randomShow(5), fc.nat(20), fc.nat(20), fc.boolean(), ({ show }, a, b, alike) => {
        const ours = show.units[a % show.units.length]!;
        const from = demo.units.filter((u) => u.profile.senders.length === 0)[b % 7]!;
        const slots = alike
          ? ours.slots.map((s, i) => newSlot(`n${i}`, i % slotCount(from.profile.plan), s.name))
          : [...from.slots];
        const other = otherUnitOf(ours.id, { ...from, slots }, null);
        if (show.sets.length === 0) return;
        const edit = setTonight(show, ours.id, other);
        if (!edit) return;
        const written = applyEdit(show, edit);
        const tonight = tonightOf(written);
        const match = matchOther(written, ours, other);
        for (const song of tonight.songs) {
          const { proofs } = proveSong(tonight, song, 'test');
          const cracked = Object.values(proofs).filter((p) => p.lantern === 'cracked').length;
          const lacks = song.cues.filter(({ action, muted }) => {
            const tone = action.kind === 'tone' ? indexShow(written).tones.get(action.toneId) : undefined;
            const part = tone?.parts.find((p) => p.unitId === ours.id);
            return !muted && part && noMatches(ours, part, other, match).length > 0;
          });
          tried += 1;
          lacking += lacks.length;
          if (lacks.length > 0) expect(cracked).toBeGreaterThan(0);
        }
        for (const s of indexShow(tonight).units.get(ours.id)!.slots) {
          if (s.index < slotCount(other.profile.plan)) expect(labelOf(other.profile.plan, s.index)).not.toBe('');
        }
      }),
      runs(25_006, 40),
    );
    expect(tried).toBeGreaterThan(0);
    expect(lacking).toBeGreaterThan(0);
  });

  it('is the same object while nothing of it changes', () => {
    const show = as(fieldBox(), presetsOnly);
    expect(tonightOf(show)).toBe(tonightOf(show));
    const again = tonightOf({ ...show, title: 'Another' });
    expect(again.units.every((u, i) => u === tonightOf(show).units[i])).toBe(true);
    expect(again.tones.every((t, i) => t === tonightOf(show).tones[i])).toBe(true);
  });
});
