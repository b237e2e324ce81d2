import { NOWHERE, problem, type Problem } from '../../problems';
import {
  SOURCES,
  emptyShow,
  feetOf,
  indexShow,
  type Call,
  type Doing,
  type Feet,
  type Show,
  type Song,
  type Unit,
} from '../../show';
import type { Part, PartWish } from './format';

/**
 * The part of a show that a wish names, with all that it leans on: tones, moves, and of each unit its map with those presets
 * that are called. Recordings, relay rules, cables, players and reactions stay behind; what of them the part had is said.
 */
export function cutPart(show: Show, wish: PartWish): { readonly part: Part; readonly problems: readonly Problem[] } {
  const feet = wish.kind === 'pages' ? feetOf(show, wish.unitId) : null;
  const set = wish.kind === 'set' ? show.sets.find((s) => s.id === wish.setId)! : null;
  const songIds = new Set(
    wish.kind === 'songs' ? wish.songIds : (set?.entries.flatMap((e) => (e.kind === 'song' ? [e.songId] : [])) ?? []),
  );
  const whole = show.songs.filter((s) => songIds.has(s.id));
  const songs = whole.map(withoutSounds);
  // Songs that open as all songs of their show do bring that opening along: elsewhere it may be another.
  const openingToneId = songs.some((s) => s.opening === 'show') ? show.openingToneId : null;
  const doings = feet === null ? [] : doingsOf(feet);
  const bridges =
    set?.entries.flatMap((e) => (e.kind === 'song' && e.bridgeToneId !== null ? [e.bridgeToneId] : [])) ?? [];
  const used = usedBy(songs, doings, openingToneId === null ? bridges : [...bridges, openingToneId]);
  if (wish.kind === 'kit') {
    for (const id of wish.toneIds) used.tones.add(id);
    for (const id of wish.moveIds) used.moves.add(id);
  }
  const tones = show.tones.filter((t) => used.tones.has(t.id));
  const moves = show.moves.filter((m) => used.moves.has(m.id));
  for (const { parts } of tones) for (const p of parts) used.units.add(p.unitId);
  for (const { steps } of moves) for (const s of steps) used.units.add(s.unitId);
  for (const { does } of feet === null ? [] : layersOf(feet).flatMap((l) => l.pedals)) {
    if (does.kind === 'control') used.units.add(does.unitId);
  }
  if (wish.kind === 'pages') used.units.add(wish.unitId);
  const slots = new Set(tones.flatMap((t) => t.parts.flatMap((p) => p.slotId ?? [])));
  for (const { id } of feet?.pages ?? []) slots.add(id);
  const kept = show.units.filter((u) => used.units.has(u.id));
  const units = kept.map((u) => bareUnit(u, slots));
  const ports = new Set(
    songs.flatMap((s) => [...s.clocks.map((c) => c.portId), ...(s.followsPortId === null ? [] : [s.followsPortId])]),
  );
  const audio = new Set(doings.flatMap((d) => (d.kind === 'sample' ? [d.audioId] : [])));
  const empty = emptyShow('part', titleOf(show, wish));
  const part: Show = {
    ...empty,
    ports: show.ports.filter((p) => ports.has(p.id)),
    units,
    house: houseOf(show, units),
    tones,
    moves,
    songs,
    openingToneId,
    feet: feet === null ? [] : [partFeet(feet, used.units)],
    ...(set === null
      ? {}
      : {
          sets: [
            {
              ...set,
              missing: [],
              tonight: [],
              // Recordings stay behind, and so do those between songs.
              entries: set.entries.flatMap((e) =>
                e.kind === 'sound' ? [] : [e.kind === 'song' ? { ...e, launch: null } : e],
              ),
            },
          ],
          setId: set.id,
        }),
  };
  const what = [
    ...(whole.some((s) => s.tracks.length > 0) || audio.size > 0 || set?.entries.some((e) => e.kind === 'sound')
      ? ['recordings']
      : []),
    ...(kept.some((u) => u.relays.length > 0) ? ['relay rules between units'] : []),
    ...(doings.some((d) => d.kind === 'song') ? ['switches that start songs'] : []),
    ...(set?.entries.some((e) => e.kind === 'song' && e.launch) ? ['what starts a song from outside'] : []),
    'cables, channels and players',
  ];
  const titles = new Map(show.songs.map((s) => [s.id, s.title]));
  const pageSongs = Object.fromEntries(
    (feet?.pages ?? []).flatMap((p) => (p.songId === null ? [] : [[p.id, titles.get(p.songId)!] as const])),
  );
  return {
    part: { kind: wish.kind, show: part, pageSongs },
    problems: [problem('export.left-out', 'note', NOWHERE, { what })],
  };
}

function titleOf(show: Show, wish: PartWish): string {
  if (wish.kind === 'set') return show.sets.find((s) => s.id === wish.setId)!.title;
  if (wish.kind === 'pages') return indexShow(show).units.get(wish.unitId)!.name;
  if (wish.kind === 'kit') return `${show.title} kit`;
  const [first] = wish.songIds;
  return wish.songIds.length === 1 ? indexShow(show).songs.get(first!)!.title : show.title;
}

/** Recordings lie beside a show, not in it: what hangs on them stays behind. */
function withoutSounds(song: Song): Song {
  const call = <C extends Call | null>(c: C): C => (c?.audioId ? { ...c, how: 'voice', audioId: null } : c);
  const sections = song.sections.map((s) => ({ ...s, call: call(s.call) }));
  const calls = song.calls.map((c) => ({ ...c, call: call(c.call) }));
  // An opening of its own that it does not use names a tone that nobody brings.
  const openingToneId = song.opening === 'own' ? song.openingToneId : null;
  return { ...song, openingToneId, tracks: [], sections, calls, announce: call(song.announce) };
}

/** What a switch does in any show: stems are of one show. */
const isEverywhere = (does: Doing): boolean => does.kind !== 'turn' || (SOURCES as readonly string[]).includes(does.of);

const layersOf = (feet: Feet): readonly Feet['everywhere'][] => [feet.everywhere, ...feet.pages];

const doingsOf = (feet: Feet): readonly Doing[] =>
  layersOf(feet).flatMap((l) => l.switches.flatMap((s) => s.doings.map((d) => d.does)));

function usedBy(songs: readonly Song[], doings: readonly Doing[], bridges: readonly string[]) {
  const tones = new Set<string>(bridges);
  const moves = new Set<string>();
  const units = new Set<string>();
  const actions = [...songs.flatMap((s) => s.cues.map((c) => c.action)), ...doings];
  for (const action of actions) {
    if (action.kind === 'tone') tones.add(action.toneId);
    else if (action.kind === 'move') moves.add(action.moveId);
    else if ('unitId' in action) units.add(action.unitId);
  }
  for (const { opening, openingToneId, sweeps, taps } of songs) {
    if (opening === 'own' && openingToneId !== null) tones.add(openingToneId);
    for (const { unitId } of [...sweeps, ...taps]) units.add(unitId);
  }
  return { tones, moves, units };
}

/** A unit's map, with those of its presets that the part calls. */
const bareUnit = (unit: Unit, slots: ReadonlySet<string>): Unit => ({
  ...unit,
  playerId: null,
  input: null,
  returns: null,
  answered: null,
  spare: '',
  splitter: false,
  versions: [],
  slots: unit.slots.filter((s) => slots.has(s.id)),
  lostSlots: unit.lostSlots.filter((s) => slots.has(s.id)),
  relays: [],
});

function houseOf(show: Show, units: readonly Unit[]): Show['house'] {
  const followed = new Set(units.flatMap((u) => u.profile.controls.map((c) => c.houseId)));
  return show.house.filter((h) => followed.has(h.id));
}

function partFeet(feet: Feet, units: ReadonlySet<string>): Feet {
  const layer = <L extends Feet['everywhere']>(l: L): L => ({
    ...l,
    switches: l.switches.map((s) => ({
      ...s,
      doings: s.doings.filter(
        ({ does }) => does.kind !== 'song' && does.kind !== 'sample' && does.kind !== 'part' && isEverywhere(does),
      ),
    })),
  });
  return {
    ...feet,
    everywhere: layer(feet.everywhere),
    pages: feet.pages.map((p) => ({ ...layer(p), songId: null })),
    boat: feet.boat.filter((b) => units.has(b.id) && units.has(b.from)),
  };
}
