import { NOWHERE, hasErrors, problem, type Problem, type Read } from '../../problems';
import {
  addHouseNumber,
  applyEdit,
  checkShow,
  feetOf,
  freeName,
  indexShow,
  type Cue,
  type Feet,
  type Move,
  type Show,
  type Song,
  type Tone,
  type Unit,
} from '../../show';
import { isTap } from '../../addressing';
import type { Part } from './format';
import { bringFeet } from './bringFeet';
import { UnitBridge, same } from './unitBridge';

/** What becomes of something of a part whose name the show has already: the show's is kept, it is replaced, or both are there. */
export type Meeting = 'mine' | 'theirs' | 'both';

/** A name that a part and the show both have, with something else behind it. */
export interface Clash {
  readonly kind: 'tone' | 'move' | 'song' | 'pages';
  /** In the part. */
  readonly id: string;
  readonly name: string;
}

export interface BringChoices {
  /** For each unit of the part the unit of the show that it is, or null where it comes along. */
  readonly units: ReadonlyMap<string, string | null>;
  /** By kind and id of the clash; what is not chosen is as `usualMeeting` says. */
  readonly meetings: ReadonlyMap<string, Meeting>;
}

/** Two songs of one name stand side by side until somebody says otherwise; of tones, moves and pages the show's own are kept. */
export const usualMeeting = (kind: Clash['kind']): Meeting => (kind === 'song' ? 'both' : 'mine');

/** The key of a clash in `BringChoices.meetings`. */
export const clashKey = ({ kind, id }: Pick<Clash, 'kind' | 'id'>): string => `${kind} ${id}`;

export interface Brought {
  /** The show with the part in it. */
  readonly show: Show;
  readonly clashes: readonly Clash[];
}

/** Which unit of a show is which of a part: by name, or by kind where the show has just one of it. */
export function proposeUnits(show: Show, part: Part): ReadonlyMap<string, string | null> {
  const left = new Set(show.units);
  const found = new Map<string, string | null>(part.show.units.map((u) => [u.id, null]));
  const take = (from: Unit, to: Unit | undefined): void => {
    if (!to || !left.delete(to)) return;
    found.set(from.id, to.id);
  };
  for (const unit of part.show.units)
    take(
      unit,
      [...left].find((u) => same(u.name, unit.name)),
    );
  for (const unit of part.show.units) {
    if (found.get(unit.id) !== null) continue;
    const alike = [...left].filter((u) => u.profile.name === unit.profile.name);
    if (alike.length === 1) take(unit, alike[0]);
  }
  return found;
}

/**
 * The show with a part of another one in it. Units, presets, controls, tones and songs are found again by their names; what
 * has no counterpart is left out and said. Nothing of the show is lost but what a choice replaces.
 */
export function bringIn(show: Show, part: Part, choices: BringChoices, newId: () => string): Read<Brought> {
  const bringing = new Bringing(show, part, choices, newId);
  return bringing.run();
}

class Bringing {
  private readonly problems = new Map<string, Problem>();
  private readonly clashes: Clash[] = [];
  private readonly bridges = new Map<string, UnitBridge>();
  private readonly fresh: Unit[] = [];
  private readonly toneIds = new Map<string, string>();
  private readonly moveIds = new Map<string, string>();
  private readonly songIds = new Map<string, string>();

  constructor(
    private show: Show,
    private readonly part: Part,
    private readonly choices: BringChoices,
    private readonly newId: () => string,
  ) {}

  run(): Read<Brought> {
    this.units();
    this.named('tone', this.part.show.tones, (t) => this.tone(t));
    this.named('move', this.part.show.moves, (m) => this.move(m));
    this.songs();
    if (this.part.kind === 'set') this.set();
    for (const feet of this.part.show.feet) this.feet(feet);
    this.arrivals();
    const problems = [...this.problems.values()];
    const faults = checkShow(this.show);
    if (hasErrors(faults)) return { value: undefined, problems: [...faults, ...problems] };
    return { value: { show: this.show, clashes: this.clashes }, problems };
  }

  private lost(where: string, unit: string, what: string): void {
    this.problems.set(`${where} ${unit} ${what}`, problem('part.lost', 'warning', NOWHERE, { where, unit, what }));
  }

  private where = '';

  private units(): void {
    const { units } = indexShow(this.show);
    const taken = new Set<string>();
    for (const from of this.part.show.units) {
      const chosen = units.get(this.choices.units.get(from.id) ?? '');
      // A unit of the show can be but one of the part's.
      const to = chosen && !taken.has(chosen.id) ? chosen : undefined;
      if (to) taken.add(to.id);
      const along = to ?? this.alongside(from);
      const said = (unit: string, what: string): void => this.lost(this.where, unit, what);
      this.bridges.set(from.id, new UnitBridge(from, along, to === undefined, this.newId, said));
    }
  }

  private alongside(from: Unit): Unit {
    const names = [...this.show.units, ...this.fresh].map((u) => u.name);
    const controls = from.profile.controls.map((c) => ({ ...c, houseId: this.house(c.houseId) }));
    const unit: Unit = {
      ...from,
      id: this.newId(),
      name: freeName(from.name, names),
      profile: { ...from.profile, controls },
    };
    this.fresh.push(unit);
    this.show = { ...this.show, units: [...this.show.units, unit] };
    return unit;
  }

  /** A shared control number of the same name and number is the same; another is not taken over. */
  private house(id: string | null): string | null {
    const theirs = this.part.show.house.find((h) => h.id === id);
    if (!theirs) return null;
    const mine = this.show.house.find((h) => same(h.name, theirs.name));
    if (mine) return mine.number === theirs.number ? mine.id : null;
    const own = { ...theirs, id: this.newId() };
    const edit = this.show.house.some((h) => h.number === theirs.number) ? null : addHouseNumber(this.show, own);
    if (edit) this.show = applyEdit(this.show, edit);
    return edit ? own.id : null;
  }

  private meeting(clash: Clash): Meeting {
    this.clashes.push(clash);
    return this.choices.meetings.get(clashKey(clash)) ?? usualMeeting(clash.kind);
  }

  /** Tones or moves, each as the show's units have it. */
  private named<T extends Tone | Move>(
    kind: 'tone' | 'move',
    list: readonly T[],
    translate: (item: T) => T | null,
  ): void {
    const ids = kind === 'tone' ? this.toneIds : this.moveIds;
    const field = kind === 'tone' ? 'tones' : 'moves';
    for (const item of list) {
      this.where = item.name;
      const mine = (this.show[field] as readonly (Tone | Move)[]).find((t) => same(t.name, item.name));
      // What the show has already needs no preset of its own: it is compared without taking any along.
      const now = translate(item);
      if (!now) continue;
      const content = (t: Tone | Move): string => JSON.stringify('parts' in t ? t.parts : t.steps);
      if (mine && content(mine) === content(now)) {
        ids.set(item.id, mine.id);
        continue;
      }
      const how = mine ? this.meeting({ kind, id: item.id, name: item.name }) : 'both';
      const all = this.show[field] as readonly (Tone | Move)[];
      if (mine && how === 'mine') ids.set(item.id, mine.id);
      else if (mine && how === 'theirs') {
        ids.set(item.id, mine.id);
        const next = all.map((t) => (t.id === mine.id ? { ...now, id: mine.id, name: mine.name } : t));
        this.show = { ...this.show, [field]: next };
      } else {
        const id = all.some((t) => t.id === item.id) ? this.newId() : item.id;
        ids.set(item.id, id);
        const name = freeName(
          item.name,
          all.map((t) => t.name),
        );
        this.show = { ...this.show, [field]: [...all, { ...now, id, name }] };
      }
    }
  }

  private tone(tone: Tone): Tone {
    return { ...tone, parts: tone.parts.map((p) => this.bridges.get(p.unitId)!.part(p)) };
  }

  private move(move: Move): Move | null {
    const steps = move.steps.flatMap((s) => {
      const bridge = this.bridges.get(s.unitId)!;
      // Of a control that is tapped the value is a count, and any is right.
      const was = bridge.from.profile.controls.find((c) => c.id === s.controlId);
      const tapped = was !== undefined && isTap(was.encoding);
      const tap = tapped ? bridge.tapped(s.controlId) : null;
      const value = tapped ? tap && { controlId: tap, value: s.value } : bridge.value(s.controlId, s.value);
      return value ? [{ unitId: bridge.to.id, ...value }] : [];
    });
    return steps.length === 0 ? null : { ...move, steps };
  }

  private songs(): void {
    for (const song of this.part.show.songs) {
      this.where = song.title;
      const mine = this.show.songs.find((s) => same(s.title, song.title));
      const how = mine ? this.meeting({ kind: 'song', id: song.id, name: song.title }) : 'both';
      if (mine && how === 'mine') {
        this.songIds.set(song.id, mine.id);
        continue;
      }
      const now = this.song(song);
      const { songs } = this.show;
      if (mine && how === 'theirs') {
        this.songIds.set(song.id, mine.id);
        // Recordings are not in a part: those that the song has stay.
        const next: Song = { ...now, id: mine.id, title: mine.title, tracks: mine.tracks };
        this.show = { ...this.show, songs: songs.map((s) => (s.id === mine.id ? next : s)) };
        continue;
      }
      const id = songs.some((s) => s.id === song.id) ? this.newId() : song.id;
      this.songIds.set(song.id, id);
      const title = freeName(
        song.title,
        songs.map((s) => s.title),
      );
      this.show = { ...this.show, songs: [...songs, { ...now, id, title }] };
    }
  }

  private song(song: Song): Song {
    const ports = new Map(
      this.part.show.ports.map((p) => [p.id, this.show.ports.find((mine) => same(mine.name, p.name))?.id]),
    );
    const port = (id: string): string | undefined => {
      const found = ports.get(id);
      const name = this.part.show.ports.find((p) => p.id === id)?.name ?? '';
      if (found === undefined) this.lost(song.title, name, 'the clock on its port');
      return found;
    };
    return {
      ...song,
      ...this.opening(song),
      cues: song.cues.flatMap((cue) => this.cue(cue) ?? []),
      sweeps: song.sweeps.flatMap((sweep) => {
        const bridge = this.bridges.get(sweep.unitId)!;
        const { shape } = sweep;
        const values = shape.kind === 'line' ? shape.points.map((p) => p.value) : [shape.low, shape.high];
        const controlId = bridge.swept(sweep.controlId, values);
        const switchId = sweep.switchId === null ? null : (bridge.value(sweep.switchId, 1)?.controlId ?? null);
        return controlId === null ? [] : [{ ...sweep, unitId: bridge.to.id, controlId, switchId }];
      }),
      taps: song.taps.flatMap((taps) => {
        const bridge = this.bridges.get(taps.unitId)!;
        const controlId = bridge.tapped(taps.controlId);
        return controlId === null ? [] : [{ ...taps, unitId: bridge.to.id, controlId }];
      }),
      clocks: song.clocks.flatMap((c) => {
        const portId = port(c.portId);
        return portId === undefined ? [] : [{ ...c, portId }];
      }),
      followsPortId: song.followsPortId === null ? null : (port(song.followsPortId) ?? null),
      tracks: [],
    };
  }

  /**
   * What a song opens with. One that opens as all songs of its show do goes on to do so only where that is
   * the same here; else it keeps the opening that it had, and that is said.
   */
  private opening({ title, opening, openingToneId }: Song): Pick<Song, 'opening' | 'openingToneId'> {
    const here = (id: string | null): string | null => (id === null ? null : (this.toneIds.get(id) ?? null));
    if (opening === 'own') return { opening, openingToneId: here(openingToneId) };
    const theirs = here(this.part.show.openingToneId);
    if (theirs === this.show.openingToneId) return { opening, openingToneId: null };
    const tone = this.show.tones.find((t) => t.id === theirs)?.name ?? null;
    this.problems.set(`opening ${title}`, problem('part.opening', 'note', NOWHERE, { song: title, tone }));
    return { opening: 'own', openingToneId: theirs };
  }

  private cue(cue: Cue): Cue | null {
    const { action } = cue;
    switch (action.kind) {
      case 'tone':
        return { ...cue, action: { ...action, toneId: this.toneIds.get(action.toneId)! } };
      case 'move': {
        const moveId = this.moveIds.get(action.moveId);
        return moveId === undefined ? null : { ...cue, action: { ...action, moveId } };
      }
      case 'message':
        return { ...cue, action: { ...action, unitId: this.bridges.get(action.unitId)!.to.id } };
      case 'control': {
        const bridge = this.bridges.get(action.unitId)!;
        const value = bridge.value(action.controlId, action.value);
        return value && { ...cue, action: { ...action, unitId: bridge.to.id, ...value } };
      }
    }
  }

  private set(): void {
    const [set] = this.part.show.sets;
    if (!set) return;
    const entries = set.entries.map((e) => {
      if (e.kind !== 'song') return { ...e, id: this.newId() };
      const bridge = e.bridgeToneId === null ? undefined : this.toneIds.get(e.bridgeToneId);
      return {
        ...e,
        id: this.newId(),
        songId: this.songIds.get(e.songId)!,
        bridgeToneId: bridge ?? null,
        launch: null,
      };
    });
    const { sets } = this.show;
    // A show that was just begun has one set with nothing in it: that is the one.
    const empty = sets.find((s) => s.entries.length === 0 && (sets.length === 1 || same(s.title, set.title)));
    const others = sets.filter((s) => s !== empty).map((s) => s.title);
    const own = { ...set, id: empty?.id ?? this.newId(), title: freeName(set.title, others), entries };
    this.show = { ...this.show, sets: empty ? sets.map((s) => (s === empty ? own : s)) : [...sets, own] };
  }

  private feet(feet: Feet): void {
    const bridge = this.bridges.get(feet.id)!;
    const { name } = bridge.to;
    const mine = feetOf(this.show, bridge.to.id);
    this.where = name;
    const full = mine.pages.length > 0 || mine.everywhere.switches.length > 0;
    const how = full ? this.meeting({ kind: 'pages', id: feet.id, name }) : 'theirs';
    if (how === 'mine') return;
    const { bridges, toneIds, moveIds, newId } = this;
    const lost = (what: string): void => this.lost(name, name, what);
    this.show = bringFeet(this.show, this.part, feet, how, { bridges, toneIds, moveIds, newId, lost });
  }

  /** Presets that tones brought along come into their units, as far as a tone that was taken calls them. */
  private arrivals(): void {
    const called = new Set(this.show.tones.flatMap((t) => t.parts.flatMap((p) => p.slotId ?? [])));
    for (const { to, arrivals } of this.bridges.values()) {
      const slots = [...arrivals.slots.values()].filter((s) => called.has(s.id));
      const lost = [...arrivals.lost.values()].filter((s) => called.has(s.id));
      if (slots.length + lost.length === 0) continue;
      for (const { name, lastIndex } of lost) {
        const data = { unit: to.name, name, index: lastIndex };
        this.problems.set(`preset ${to.id} ${name}`, problem('part.no-place', 'warning', NOWHERE, data));
      }
      const units = this.show.units.map((u) =>
        u.id === to.id
          ? {
              ...u,
              slots: [...u.slots, ...slots].toSorted((a, b) => a.index - b.index),
              lostSlots: [...u.lostSlots, ...lost],
            }
          : u,
      );
      this.show = { ...this.show, units };
    }
  }
}
