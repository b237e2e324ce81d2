export { LIBRARY, libraryProfile, librarySchema, type LibraryEntry } from './profiles';
