import { acceptedReason, checkRig, checkSong, type Finding } from '../core/checks';
import { proveSong } from '../core/proof';
import type { SheetWords } from '../core/sheets';
import { indexShow, songTime, type Show } from '../core/show';
import { tonightOf } from '../core/tonight';
import { formatPosition } from '../core/time';
import { findingSentence } from './findings';
import { doesWords, hearsWords } from './reactions';

/** Where a finding is, in a few words. */
function findingPlace(show: Show, { place }: Finding): string {
  const { units, ports, songs, tones } = indexShow(show);
  switch (place.in) {
    case 'song': {
      const song = songs.get(place.songId);
      return song ? `${song.title}, ${formatPosition(songTime(song).bars, place.at, song.bars)}` : '';
    }
    case 'unit':
      return units.get(place.unitId)?.name ?? '';
    case 'port':
      return ports.get(place.portId)?.name ?? '';
    case 'tone':
      return tones.get(place.toneId)?.name ?? '';
    default:
      return 'the show';
  }
}

/** Findings that somebody let be. What a dry run alone sees is looked for where somebody let such a thing be. */
function accepted(show: Show): ReturnType<SheetWords['accepted']> {
  if (show.accepted.length === 0) return [];
  const tonight = tonightOf(show);
  const run = show.accepted.some((a) => a.key.startsWith('["song.'));
  const findings = [
    ...checkRig(tonight),
    ...show.songs.flatMap((s) => (run ? proveSong(tonight, s, '', false).findings : checkSong(tonight, s))),
  ];
  return findings.flatMap((f) => {
    const reason = acceptedReason(show, f);
    return reason === undefined ? [] : [{ place: findingPlace(show, f), says: findingSentence(f), reason }];
  });
}

/** What sheets of paper say in the words of the interface. */
export const sheetWords: SheetWords = { hears: hearsWords, does: doesWords, accepted };
