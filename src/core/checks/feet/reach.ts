import {
  PRESS_TIME,
  deadEnds,
  fallbackOf,
  footWays,
  inTime,
  pageOfSong,
  reachOf,
  switchSends,
  entryOn,
} from '../../feet';
import {
  applyEdit,
  indexShow,
  newFootSwitch,
  putFootSwitches,
  songTime,
  songsOfSet,
  type Edit,
  type Show,
  type Song,
} from '../../show';
import { formatPosition } from '../../time';
import { finding, type Check, type Finding } from '../finding';
import { inFeet, programmed, type Programmed } from './controllers';

/** More presses than this and a foot is not there in time. */
const MOST_PRESSES = 2;

/** Controllers whose pages call tones: those that a set can be played with. */
const players = (show: Show): readonly Programmed[] =>
  programmed(show).filter(({ feet }) =>
    [feet.everywhere, ...feet.pages].some((layer) =>
      layer.switches.some((s) => s.doings.some((d) => d.does.kind === 'tone')),
    ),
  );

/** Tones of the set that no foot reaches, or only by more than two presses: said of the controller that reaches most. */
export const tonesReached: Check = (show) => {
  const songs = songsOfSet(show);
  const best = new Map<
    string,
    { readonly own: Programmed; readonly songId: string; readonly presses: number | null }
  >();
  for (const own of players(show)) {
    for (const { toneId, songId, presses } of reachOf(show, own.unit.id, songs)) {
      const was = best.get(toneId);
      if (!was || (presses ?? Infinity) < (was.presses ?? Infinity)) best.set(toneId, { own, songId, presses });
    }
  }
  return [...best].flatMap(([toneId, { own, songId, presses }]): Finding[] => {
    if (presses !== null && presses <= MOST_PRESSES) return [];
    const song = indexShow(show).songs.get(songId)!;
    const page = footWays(show, own.unit.id)?.pages.find((p) => p.songId === songId) ?? null;
    const place = inFeet(own.unit.id, page?.id ?? null);
    const data = { tone: indexShow(show).tones.get(toneId)?.name ?? '', song: song.title, controller: own.unit.name };
    const fix = onFreeSwitch(show, own, song, toneId);
    return presses === null
      ? [finding('feet.tone-unreached', 'warning', place, data, fix)]
      : [finding('feet.tone-far', 'note', place, { ...data, presses }, fix)];
  });
};

/** Puts a tone on the first switch of a song's page that does nothing yet, if that one can hold it. */
function onFreeSwitch(show: Show, { unit, controller, feet }: Programmed, song: Song, toneId: string): Edit | null {
  const ways = footWays(show, unit.id);
  const page = ways && pageOfSong(ways, song.id);
  const free = page && controller.switches.find((s) => !entryOn(feet, page, s.id));
  if (!page || !free) return null;
  const fix = putFootSwitches(show, unit.id, page.id, [newFootSwitch(free.id, [{ kind: 'tone', toneId }])]);
  if (!fix) return null;
  return switchSends(applyEdit(show, fix), unit.id, page.id, free.id).wrong.some((w) => w.what === 'full') ? null : fix;
}

/** Changes for which a foot has not the time: the presses ahead of them take longer than there is since the change before. */
export const footInTime: Check = (show) =>
  players(show).flatMap(({ unit }) =>
    songsOfSet(show).flatMap((song) => {
      const { bars } = songTime(song);
      return (fallbackOf(show, unit.id, song)?.steps ?? [])
        .filter((step) => !inTime(step))
        .map(({ at, presses, since }) => {
          const place = inFeet(unit.id, presses![0]!.pageId);
          const needs = ((presses!.length - 1) * PRESS_TIME) / 1e6;
          const data = { song: song.title, at: formatPosition(bars, at, song.bars), controller: unit.name };
          return finding('feet.hurried', 'warning', place, { ...data, needs, has: (since ?? 0) / 1e6 });
        });
    }),
  );

/** Pages that no switch leads away from, where there are others. */
export const pagesLeadOn: Check = (show) =>
  programmed(show).flatMap(({ unit }) => {
    const ways = footWays(show, unit.id);
    // A controller whose pages nothing turns is left to whoever calls its pages.
    if (!ways || unit.profile.controller?.jumps === 'none') return [];
    const closed = deadEnds(ways);
    if (closed.length === ways.pages.length) return [];
    return closed.map(({ id }) => {
      const slot = indexShow(show).slots(unit.id).get(id);
      return finding('feet.dead-end', 'warning', inFeet(unit.id, id), {
        controller: unit.name,
        page: slot?.name ?? '',
      });
    });
  });
