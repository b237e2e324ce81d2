export {
  namedControls,
  patchesToSlots,
  readMidiNames,
  type BankSelect,
  type DeviceNames,
  type NamedControl,
  type NamedPatch,
} from './read';
export { writeMidiNames, type WrittenNames } from './write';
