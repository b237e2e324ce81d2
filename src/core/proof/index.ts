export { NO_PICTURE, type SongPicture, type StateSpan } from './picture';
export { makeSong, proveSong, type CueProof, type MadeSong, type SongProof } from './proveSong';
