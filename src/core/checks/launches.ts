import { NOT_REACTED, react } from '../meaning';
import { fromHex } from '../midi';
import { indexShow, type Show, type ShowSet, type SongEntry } from '../show';
import { finding, type Check } from './finding';

const launching = ({ entries }: ShowSet) =>
  entries.filter(
    (e): e is SongEntry & { launch: NonNullable<SongEntry['launch']> } => e.kind === 'song' && e.launch !== null,
  );

const titleOf = (show: Show, songId: string): string => indexShow(show).songs.get(songId)?.title ?? songId;

/** Two songs of a set wait for the same message: only the first is ever started. */
export const launchShared: Check = (show) =>
  show.sets.flatMap((set) => {
    const all = launching(set);
    return all.flatMap((entry, i) => {
      const same = all.filter(
        ({ launch }) => launch.portId === entry.launch.portId && launch.bytes === entry.launch.bytes,
      );
      // Said once, at the second: it is the one that does not start.
      if (same.length < 2 || all.indexOf(same[1]!) !== i) return [];
      const place = { in: 'entry', setId: set.id, entryId: entry.id } as const;
      const songs = same.map((e) => titleOf(show, e.songId));
      return [finding('night.launch-shared', 'error', place, { set: set.title, songs, message: entry.launch.bytes })];
    });
  });

/** A reaction swallows the message that a song waits for. */
export const launchUnheard: Check = (show) =>
  show.sets.flatMap((set) =>
    launching(set).flatMap(({ id, songId, launch }) => {
      const bytes = fromHex(launch.bytes)!;
      const whole = bytes.length === 2 && bytes[0]! >> 4 === 9 ? [...bytes, 100] : bytes;
      // Reactions of one song are left out: while it is on, taking the message may be what is wanted.
      const always = { reactions: show.reactions.filter((r) => r.songId === null) };
      const { goesOn, steps } = react(always, NOT_REACTED, { songId: null, at: 0 }, launch.portId, whole);
      const by = goesOn ? -1 : show.reactions.findIndex((r) => r.id === steps.at(-1)?.reactionId);
      if (by < 0) return [];
      const place = { in: 'entry', setId: set.id, entryId: id } as const;
      return [finding('night.launch-unheard', 'warning', place, { song: titleOf(show, songId), reaction: by + 1 })];
    }),
  );
