export { songIntoShow, type Imported } from './songIntoShow';
export { matchVoices, voicesOf, withoutChannels, withoutVoices } from './voices';
