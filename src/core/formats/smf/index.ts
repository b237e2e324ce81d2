export { EVENT_LIMIT, readSmf } from './read';
export { writeSmf } from './write';
export { smfToShow } from './smfToShow';
export { matchVoices, songIntoShow, voicesOf, type Imported, type Voice } from './into';
export { songToSmf, songsToSmf, type SmfMode, type SmfWish } from './songToSmf';
export { STEP_ERROR_MICROS, tempoSteps, type TempoStep } from './tempoSteps';
export type { SmfEvent, SmfFile, SmfTrack } from './types';
export { midiFiles, type MidiFiles, type MidiWish } from './midiFiles';
