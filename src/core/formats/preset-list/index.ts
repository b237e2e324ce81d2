export { decodeText } from './decodeText';
export { readPresetList } from './read';
export { writePresetList, writeReorderList } from './write';
