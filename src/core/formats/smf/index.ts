export { readSmf } from './read';
export { writeSmf } from './write';
export { smfToShow } from './smfToShow';
export { matchVoices, songIntoShow, voicesOf, withoutChannels, withoutVoices, type Imported } from './into';
export { songToSmf, songsToSmf, type SmfMode } from './songToSmf';
export type { SmfEvent, SmfFile } from './types';
export { midiFiles, type MidiWish } from './midiFiles';
