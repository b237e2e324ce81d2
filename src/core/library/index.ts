export { LIBRARY, libraryEntry, libraryProfile } from './library';
export { librarySchema, type LibraryEntry } from './entry';
