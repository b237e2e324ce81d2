export { songIntoShow, type Imported } from './songIntoShow';
export { matchVoices, voicesOf, type Voice } from './voices';
