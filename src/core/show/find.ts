import type { Cue, Player, Port, Show, ShowSet, Slot, Song, SongEntry, Tone, Unit } from './schema';

/** Members of a show by id, made once a show and kept while it lives. */
export interface ShowIndex {
  readonly units: ReadonlyMap<string, Unit>;
  readonly ports: ReadonlyMap<string, Port>;
  readonly players: ReadonlyMap<string, Player>;
  readonly tones: ReadonlyMap<string, Tone>;
  readonly songs: ReadonlyMap<string, Song>;
  readonly slots: (unitId: string) => ReadonlyMap<string, Slot>;
}

const byId = <T extends { readonly id: string }>(list: readonly T[]): ReadonlyMap<string, T> =>
  new Map(list.map((m) => [m.id, m]));

const indexes = new WeakMap<Show, ShowIndex>();
const slotIndexes = new WeakMap<readonly Slot[], ReadonlyMap<string, Slot>>();

/** A unit's slots by id. */
export function slotsById(unit: Unit): ReadonlyMap<string, Slot> {
  let found = slotIndexes.get(unit.slots);
  if (!found) {
    found = byId(unit.slots);
    slotIndexes.set(unit.slots, found);
  }
  return found;
}

/** The parts of a show by their ids. Made once for each show: shows are values and never change. */
export function indexShow(show: Show): ShowIndex {
  let index = indexes.get(show);
  if (!index) {
    const units = byId(show.units);
    const none: ReadonlyMap<string, Slot> = new Map();
    index = {
      units,
      ports: byId(show.ports),
      players: byId(show.players),
      tones: byId(show.tones),
      songs: byId(show.songs),
      slots: (unitId) => {
        const unit = units.get(unitId);
        return unit ? slotsById(unit) : none;
      },
    };
    indexes.set(show, index);
  }
  return index;
}

/** The running order that is played from. */
export const setOf = (show: Pick<Show, 'sets' | 'setId'>): ShowSet =>
  show.sets.find((s) => s.id === show.setId) ?? show.sets[0]!;

/** Its songs as they stand in it, one after the other. */
export const songEntries = (show: Pick<Show, 'sets' | 'setId'>): readonly SongEntry[] =>
  setOf(show).entries.filter((e): e is SongEntry => e.kind === 'song');

/** The songs of the open set, in its order; one that is in it twice comes twice. */
export const songsOfSet = (show: Show): readonly Song[] => {
  const { songs } = indexShow(show);
  return songEntries(show).flatMap((e) => songs.get(e.songId) ?? []);
};

/** Cues in the order in which they come; those on one place stay in the order of the list. */
export const cuesInOrder = (song: Song): readonly Cue[] => {
  const cues = song.cues;
  for (let i = 1; i < cues.length; i++) {
    if (cues[i]!.at < cues[i - 1]!.at) return cues.toSorted((a, b) => a.at - b.at);
  }
  return cues;
};

/** The tone that a song opens with: its own, or that of the show; null for none. */
export const openingOf = (show: Pick<Show, 'openingToneId'>, song: Song): string | null =>
  song.opening === 'show' ? show.openingToneId : song.openingToneId;
