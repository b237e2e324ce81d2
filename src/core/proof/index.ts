export { pictureOfNight } from './pictureOfNight';
export { NO_PICTURE, type SongPicture, type StateSpan } from './picture';
export { makeSong, proveSong, type CueProof, type SongProof } from './proveSong';
