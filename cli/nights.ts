import { differsTonight, tonightOf } from '../src/core/tonight';
import { nightsOfSet, playNights, type CueNights, type NightMiss } from '../src/core/nights';
import { indexShow } from '../src/core/show';
import { nightMissWords } from '../src/wording';
import { runSong, type Outcome } from './commands';
import { findSong, readShow } from './files';
import { Failure } from './failure';

/** The most nights that are played at once: some minutes of a large show. */
export const MOST_NIGHTS = 10_000;

/** A whole number that was typed for an option; `usual` where none was. */
function whole(name: string, text: string | undefined, usual: number, low: number, high: number): number {
  if (text === undefined) return usual;
  const value = Number(text);
  if (Number.isInteger(value) && value >= low && value <= high && text.trim() !== '') return value;
  throw new Failure(`--${name} is a whole number from ${low} to ${high}, not "${text}".`);
}

/** A share from 0 to 1, or in percent: "0.99" and "99%" are the same. */
function shareOf(text: string | undefined): number | null {
  if (text === undefined) return null;
  const percent = /^(\d+(?:\.\d+)?)\s*%$/.exec(text.trim());
  const value = percent ? Number(percent[1]) / 100 : Number(text);
  if (text.trim() !== '' && value >= 0 && value <= 1) return value;
  throw new Failure(`--share is a part of 1 or a percentage, such as 0.99 or 99%, not "${text}".`);
}

export interface NightsWish {
  readonly nights: string | undefined;
  readonly seed: string | undefined;
  readonly share: string | undefined;
  readonly song: string | undefined;
  readonly json: boolean;
}

/**
 * Plays the songs of a show on nights drawn from a seed. 1 where something lands on a smaller share of them than
 * `share`, where that is given.
 */
export function nights(path: string, wish: NightsWish, progress: (line: string) => void): Outcome {
  const show = tonightOf(readShow(path));
  const count = whole('nights', wish.nights, 1000, 1, MOST_NIGHTS);
  const seed = whole('seed', wish.seed, 1, 0, 2 ** 31 - 1);
  const share = shareOf(wish.share);
  const songs = wish.song === undefined ? show.songs : [findSong(show, wish.song)];
  const { units } = indexShow(show);
  const why = (miss: NightMiss): string => nightMissWords(miss, units.get(miss.unitId)!);
  const played = songs.map((song, i) => {
    const done = playNights(show, song, { seed, from: 0, to: count });
    progress(`${i + 1} of ${songs.length} songs`);
    return { song, done };
  });
  const reports = played.map(({ song, done }) => {
    const cues = runSong(show, song).cues.flatMap(({ cue, at, what }) => {
      const found: CueNights | undefined = done.cues[cue];
      return found ? [{ cue, at, what, landed: found.landed, misses: found.misses }] : [];
    });
    return { song: song.title, landed: count - done.missed.length, cues };
  });
  const all = nightsOfSet(
    played.map((p) => p.done),
    count,
  );
  const short = share === null ? [] : reports.flatMap((r) => r.cues.filter((c) => c.landed < share * count));
  const code = short.length > 0 ? 1 : 0;
  if (wish.json) {
    const said = reports.map((r) => ({
      ...r,
      cues: r.cues.map((c) => ({
        ...c,
        misses: c.misses.map((m) => ({ ...m, unit: units.get(m.unitId)!.name, why: why(m) })),
      })),
    }));
    return {
      lines: [
        JSON.stringify(
          { show: show.title, tonight: differsTonight(show), nights: count, seed, landed: all, songs: said },
          null,
          1,
        ),
      ],
      code,
    };
  }
  const number = (n: number): string => n.toLocaleString('en-GB');
  const of = (n: number): string => `${number(n)} of ${number(count)}`;
  const lines = reports.flatMap((r) => [
    `${r.song}: all of it lands on ${of(r.landed)} nights`,
    ...r.cues
      .filter((c) => c.landed < count)
      .sort((a, b) => a.landed - b.landed)
      .flatMap((c) => [
        `  ${of(c.landed)}  ${c.at.padEnd(10)} ${c.what}`,
        ...(c.misses[0] ? [`        night ${c.misses[0].night + 1}: ${why(c.misses[0])}`] : []),
      ]),
  ]);
  const sum = wish.song === undefined ? [`The whole show lands on ${of(all)} nights (seed ${seed}).`] : [];
  const fails = short.length > 0 ? [`${short.length} changes land on fewer than ${wish.share} of the nights.`] : [];
  return { lines: [...differsTonight(show), ...lines, ...sum, ...fails], code };
}
