import { readCode } from '../../clock';
import { codeRanges, leaderOf } from '../../meaning';
import { setSongField } from '../../show';
import { finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** Time code is known some frames after it began to run. */
const KNOWN_AFTER = 300_000;

/** What a song sends ahead of its start has to fit between the code before it and its place. */
export const codeEarly: SongCheck = (facts) => {
  const { show, song, run } = facts;
  const { portId, rate } = show.timeCode;
  const ahead = -Math.min(0, run?.compiled.events[0]?.at ?? 0);
  if (portId === null || ahead === 0) return [];
  const ranges = codeRanges(show, rate);
  const i = ranges.findIndex((r) => r.songId === song.id);
  const range = ranges[i];
  if (!range) return [];
  // Behind another song the code runs already.
  const before = i > 0 ? ranges[i - 1]!.to : KNOWN_AFTER;
  // Songs that overlap are told of as such.
  if (i > 0 && range.from < before) return [];
  const has = Math.max(0, range.from - before) / 1000;
  const needs = ahead / 1000;
  return has >= needs
    ? []
    : [finding('song.code-early', 'warning', inSong(facts, 0), { song: song.title, has, needs })];
};

/** Time code leads the song, and so does a clock: each would have it elsewhere. */
export const codeAndClock: SongCheck = (facts) => {
  const { show, song } = facts;
  if (leaderOf(show, song) !== 'code' || song.followsPortId === null) return [];
  const port = show.ports.find((p) => p.id === song.followsPortId)?.name ?? song.followsPortId;
  const fix = setSongField(show, song.id, 'followsPortId', null);
  return [finding('song.two-leads', 'error', inSong(facts, 0), { song: song.title, port }, ...(fix ? [fix] : []))];
};

/** Its place in the code is none at the rate of the show. */
export const codeUnread: SongCheck = (facts) => {
  const { show, song } = facts;
  const { portId, rate, sends } = show.timeCode;
  const isUsed = portId !== null || sends.length > 0;
  if (!isUsed || song.code === null || readCode(song.code, rate)) return [];
  return [finding('song.code-unread', 'error', inSong(facts, 0), { song: song.title, code: song.code, rate })];
};
