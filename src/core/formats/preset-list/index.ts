export { decodeText } from './decodeText';
export { NAME_LIMIT, readPresetList, type PresetListOptions } from './read';
export { writePresetList, writeReorderList } from './write';
