export { songIntoShow, type Imported } from './songIntoShow';
export { matchVoices, voicesOf } from './voices';
