import type { Song } from '../show';
import type { ShowTonight } from '../tonight';
import type { Finding } from './finding';
import { clockTooLong } from './song/clockTooLong';
import { codeAndClock, codeEarly, codeUnread } from './song/codeLead';
import { flipInSong } from './song/flipInSong';
import { changesNothing, duplicateCues } from './song/idleCues';
import { insideSettle } from './song/insideSettle';
import { landings } from './song/landings';
import { noMatch } from './song/noMatch';
import { noOpening } from './song/noOpening';
import { outsideSong } from './song/outsideSong';
import { portFull } from './song/portFull';
import { rawMessages } from './song/rawMessages';
import { sectionState } from './song/sectionState';
import { selectorRamp } from './song/selectorRamp';
import type { SongCheck } from './song/songCheck';
import { storedBetween } from './song/storedBetween';
import { effectLeftOn, sweepOffRest, sweepsOverlap } from './song/sweepFindings';
import { toneDiffers } from './song/toneDiffers';
import { tonesClash } from './song/tonesClash';
import { trailCut } from './song/trailCut';
import { songFacts, type SongFacts } from './song/facts';
import { writtenFixes } from './writtenFixes';

/** All checks of a song, one a kind of finding (those on one file are near relations). */
export const SONG_CHECKS: readonly SongCheck[] = [
  landings,
  noMatch,
  insideSettle,
  outsideSong,
  clockTooLong,
  codeEarly,
  codeAndClock,
  codeUnread,
  tonesClash,
  toneDiffers,
  sweepsOverlap,
  selectorRamp,
  rawMessages,
  flipInSong,
  trailCut,
  storedBetween,
  noOpening,
  portFull,
  sweepOffRest,
  effectLeftOn,
  duplicateCues,
  changesNothing,
  sectionState,
];

const ORDER = { error: 0, warning: 1, note: 2 } as const;

/** The gravest first; of like ones, in the order of the song. */
const byGravity = (a: Finding, b: Finding): number => ORDER[a.severity] - ORDER[b.severity] || tickOf(a) - tickOf(b);

const tickOf = ({ place }: Finding): number => (place.in === 'song' ? place.at : 0);

/** Everything that the checks have to say of a song; with a run, also what the dry run saw. */
export function checkSong(show: ShowTonight, song: Song, run: SongFacts['run'] = null): Finding[] {
  const facts = songFacts(show, song, run);
  const found = SONG_CHECKS.flatMap((check) => check(facts));
  return writtenFixes(show, found).sort(byGravity);
}
