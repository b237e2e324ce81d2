export { namedControls, patchesToSlots, readMidiNames } from './read';
export { writeMidiNames } from './write';
