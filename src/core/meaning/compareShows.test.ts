import { guess } from '../addressing';
import { describe, expect, it } from 'vitest';
import { showDifferenceWords } from '../../wording';
import { demoShow } from '../demo';
import { readShowData } from '../formats/show-file';
import {
  addFootPage,
  applyEdit,
  changeCue,
  deleteSong,
  moveSlots,
  newFootSwitch,
  pagesOf,
  putFootSwitches,
  removeCue,
  renameTone,
  setSongField,
  setTonePart,
  setUnitField,
  type Edit,
  type Show,
  type Unit,
} from '../show';
import { compareShows } from './compareShows';

const show = demoShow();
const after = (...edits: ((s: Show) => Edit | null)[]): string[] =>
  compareShows(
    show,
    edits.reduce((s, edit) => applyEdit(s, edit(s)!), show),
  ).map(showDifferenceWords);

/** The demo with something of what it has none of. */
const whole: Show = {
  ...show,
  notes: 'a note',
  colours: [{ colour: 'amber', means: 'loud' }],
  accepted: [{ key: 'k', says: 's', reason: 'r' }],
  songs: show.songs.map((s, i) =>
    i === 0 ? { ...s, remarks: [{ id: 'rem', at: 960, text: 'wait', onStage: true }], notes: 'slow' } : s,
  ),
};

/** The same with the keys of all objects in the opposite order. */
const turned = <T>(value: T): T => {
  if (Array.isArray(value)) return value.map(turned) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .toReversed()
      .map(([k, v]) => [k, turned(v as unknown)]),
  ) as T;
};

describe('two states of a show', () => {
  it('that are the same differ in nothing', () => {
    expect(compareShows(show, show)).toEqual([]);
    expect(compareShows(show, structuredClone(show))).toEqual([]);
    expect(compareShows(show, turned(show))).toEqual([]);
    const { value } = readShowData(structuredClone(show));
    expect(compareShows(value!, show)).toEqual([]);
  });

  it('differ in what was changed only, whatever order their keys have', () => {
    const changed = applyEdit(show, renameTone(show, 'undertow', 'Riptide')!);
    expect(compareShows(turned(show), changed).map(showDifferenceWords)).toEqual(['Tone Undertow is called Riptide.']);
  });

  it('tell a move that does something else from one that is called otherwise', () => {
    const [move] = show.moves;
    const compared = (changed: typeof move): string[] =>
      compareShows(show, { ...show, moves: show.moves.map((m) => (m === move ? changed! : m)) }).map(
        showDifferenceWords,
      );
    expect(compared({ ...move!, steps: move!.steps.slice(1) })).toEqual([`${move!.name} does something else.`]);
    expect(compared({ ...move!, name: 'Ebb' })).toEqual([`Move ${move!.name} is called Ebb.`]);
  });

  it('leave nothing unsaid of a unit: controls that came and went, and whatever else', () => {
    const withUnit = (change: (u: Unit) => Unit): string[] =>
      compareShows(show, { ...show, units: show.units.map((u) => (u.id === 'tarn' ? change(u) : u)) })
        .map(showDifferenceWords)
        .filter((line) => line.startsWith('Tarn'));
    const controls = (change: (list: Unit['profile']['controls']) => Unit['profile']['controls']) => (u: Unit) => ({
      ...u,
      profile: { ...u.profile, controls: change(u.profile.controls) },
    });
    const [first] = show.units.find((u) => u.id === 'tarn')!.profile.controls;
    expect(withUnit(controls((list) => [...list, { ...first!, id: 'x', name: 'Shimmer' }]))).toEqual([
      'Tarn, controls new: Shimmer.',
    ]);
    expect(withUnit(controls((list) => list.slice(1)))).toEqual([`Tarn, controls gone: ${first!.name}.`]);
    expect(
      withUnit((u) => ({ ...u, profile: { ...u.profile, times: { ...u.profile.times, recall: guess(999) } } })),
    ).toEqual(['Tarn: times changed.']);
    expect(withUnit((u) => ({ ...u, spare: 'the old one', listens: 'all', margin: 9 }))).toEqual([
      'Tarn: what it listens to, spare and margin changed.',
    ]);
    expect(withUnit(controls((list) => list.map((c, i) => (i === 0 ? { ...c, name: 'Wash' } : c))))).toEqual([
      'Tarn: names, options or times of controls changed.',
    ]);
  });

  it('say which running orders are new', () => {
    const [set] = show.sets;
    const more = { ...show, sets: [...show.sets, { ...set!, id: 'late', title: 'Late show' }] };
    expect(compareShows(show, more).map(showDifferenceWords)).toEqual(['New: set Late show.']);
  });

  it('differ in words: names, numbers, channels', () => {
    expect(after((s) => renameTone(s, 'undertow', 'Riptide'))).toEqual(['Tone Undertow is called Riptide.']);
    expect(after((s) => setUnitField(s, 'tarn', 'name', 'Mere'))).toEqual(['Unit Tarn is called Mere.']);
    const moved = after((s) => moveSlots(s, 'wick', 0, 1));
    expect(moved[0]).toBe('Wick Four: bank 1 look 02 Low water blue is bank 1 look 01 Low water blue now.');
    // What is called by another number sounds different only to the wires.
    expect(moved.some((m) => m.endsWith('its units are sent something else.'))).toBe(true);
    const channel = after((s) => setUnitField(s, 'tarn', 'channel', 12));
    expect(channel[0]).toBe('Tarn is sent to on channel 12, was 7.');
  });

  it('say which tones and songs sound different', () => {
    const part = { unitId: 'marram', slotId: null, variant: 1, controls: [], effects: [] };
    const words = after((s) => setTonePart(s, 'held-breath', 'marram', part));
    expect(words).toEqual([
      'Held Breath is another sound: Marram differs.',
      'Nine Fathoms: its units are sent something else.',
    ]);
  });

  it('say what became of a song’s cues and frame', () => {
    const [first, second] = show.songs[0]!.cues;
    const words = after(
      (s) => removeCue(s, 'slack-tide', first!.id),
      (s) => changeCue(s, 'slack-tide', second!.id, { muted: true }),
    );
    expect(words).toEqual(['Slack Tide in Seven: 1 cue gone, 1 cue changed; its units are sent something else.']);
    const sections = after((s) => setSongField(s, 'fog-bell', 'sections', []));
    expect(sections).toEqual(['Fog Bell: sections changed.']);
    expect(after((s) => deleteSong(s, 'fog-bell'))[0]).toBe('Gone: song Fog Bell.');
  });

  it('say that a song is sent otherwise only where it is', () => {
    const [quillback] = show.units;
    const unit = { ...quillback!, id: 'new', name: 'Second', channel: 2, input: null, returns: null, relays: [] };
    expect(compareShows(show, { ...show, units: [...show.units, unit] }).map(showDifferenceWords)).toEqual([
      'New: unit Second.',
    ]);
    const page = addFootPage(show, 'treadle', 'Encore', () => 'encore')!.edit;
    expect(compareShows(show, applyEdit(show, page)).map(showDifferenceWords)).toEqual(['New: page Encore.']);
    expect(compareShows(applyEdit(show, page), show).map(showDifferenceWords)).toEqual(['Gone: page Encore.']);
  });

  it('say of every field that is changed alone that it is', () => {
    const unsaid: string[] = [];
    const tried = new Set<string>();
    const kindOf = (path: readonly (string | number)[]): string =>
      path.map((step) => (typeof step === 'number' ? '*' : step)).join('.');
    // Where nothing stands, what stands at the like place of something else is put.
    const elsewhere = new Map<string, unknown>();
    const gather = (value: unknown, path: readonly (string | number)[]): void => {
      if (value !== null && !elsewhere.has(kindOf(path))) elsewhere.set(kindOf(path), value);
      if (Array.isArray(value)) for (const [i, own] of value.entries()) gather(own, [...path, i]);
      else if (typeof value === 'object' && value !== null)
        for (const [key, own] of Object.entries(value)) gather(own, [...path, key]);
    };
    gather(whole, []);
    const alter = (value: unknown, kind: string): unknown => {
      if (typeof value === 'number') return value + 1;
      if (typeof value === 'boolean') return !value;
      return value === null ? elsewhere.get(kind) : `${JSON.stringify(value)}x`;
    };
    /** A show with one value exchanged. */
    const withValue = (root: unknown, path: readonly (string | number)[], value: unknown): unknown => {
      const [step, ...rest] = path;
      if (step === undefined) return value;
      if (Array.isArray(root)) return root.map((v: unknown, i) => (i === step ? withValue(v, rest, value) : v));
      return { ...(root as object), [step]: withValue((root as Record<string, unknown>)[step], rest, value) };
    };
    const compare = (path: readonly (string | number)[], value: unknown): void => {
      const changed = withValue(whole, path, value) as Show;
      const said = compareShows(whole, changed).map(showDifferenceWords);
      if (said.length === 0 || said.some((line) => !/^[^:]{2}.*\w.*\.$/.test(line) || line.includes('undefined'))) {
        unsaid.push(`${path.join('.')}: ${said.join(' ')}`);
      }
    };
    const visit = (value: unknown, path: readonly (string | number)[]): void => {
      // Of a list the first three: each kind of field is met, and once is enough.
      const kind = kindOf(path);
      if (['format', 'version', 'id'].includes(kind)) return;
      if (Array.isArray(value)) {
        for (const [i, own] of value.slice(0, 3).entries()) visit(own, [...path, i]);
        // A plan that is shorter than its presets is no show.
        if (value.length > 0 && !path.includes('plan')) compare(path, value.slice(1));
      } else if (typeof value === 'object' && value !== null) {
        for (const [key, own] of Object.entries(value)) visit(own, [...path, key]);
      } else if (!tried.has(kind)) {
        const other = alter(value, kind);
        if (other === undefined) return;
        tried.add(kind);
        compare(path, other);
      }
    };
    visit(whole, []);
    expect(tried.size).toBeGreaterThan(250);
    expect(unsaid).toEqual([]);
  });

  it('say what stands in another order, and the kinds that have no name of their own', () => {
    const turnedAbout = { ...show, tones: show.tones.toReversed(), players: show.players.toReversed() };
    expect(compareShows(show, turnedAbout).map(showDifferenceWords)).toEqual([
      'The players stand in another order.',
      'The tones stand in another order.',
    ]);
    const [reaction] = show.reactions;
    const other = { ...show, reactions: show.reactions.map((r) => (r === reaction ? { ...r, on: !r.on } : r)) };
    expect(compareShows(show, other).map(showDifferenceWords)).toEqual([
      `Reaction ${reaction!.name}: on or off changed.`,
    ]);
    const set = { ...show.sets[0]!, missing: [show.players[0]!.id] };
    expect(compareShows(show, { ...show, sets: [set] }).map(showDifferenceWords)[0]).toBe(
      `Set ${set.title}: who is missing tonight changed.`,
    );
    expect(compareShows(show, { ...show, margin: 9, notes: 'soft' }).map(showDifferenceWords)[0]).toBe(
      'The show: notes and margin changed.',
    );
  });

  it('say which pages of a controller differ', () => {
    const page = pagesOf(show, 'treadle')[2]!;
    const stop = newFootSwitch('switch-5', [{ kind: 'session', act: 'stop' }]);
    expect(after((s) => putFootSwitches(s, 'treadle', page.id, [stop]))).toEqual([
      'Treadle Ten: page Rope Ledger differs.',
    ]);
    expect(after((s) => putFootSwitches(s, 'treadle', null, [stop]))).toEqual([
      'Treadle Ten: what stands on every page differs.',
    ]);
  });
});
