import { compileSong } from '../compile';
import { songWants } from '../meaning';
import { playNight, type NightName } from '../nights';
import type { Song } from '../show';
import type { ShowTonight } from '../tonight';
import { pictureOf, type SongPicture } from './picture';

/** What a song looks like on one night: as its dry run does, with the times of that night. */
export const pictureOfNight = (show: ShowTonight, song: Song, name: NightName): SongPicture =>
  pictureOf(show, compileSong(show, song), songWants(show, song), playNight(show, song, name));
