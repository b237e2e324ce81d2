export { songIntoShow, type Imported } from './songIntoShow';
export { matchVoices, voicesOf, withoutVoices } from './voices';
