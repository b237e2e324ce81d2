import type { LibraryEntry } from '../../core/library';
import type { Show } from '../../core/show';

// What never changes comes with the application, in parts of its own that are fetched when they are wanted.

export const demoShows = {
  demo: async (): Promise<Show> => (await import('../../core/demo')).demoShow(),
  faults: async (): Promise<Show> => (await import('../../core/demo')).faultyDemo(),
} as const;

export const unitLibrary = async (): Promise<readonly LibraryEntry[]> => (await import('../../core/library')).LIBRARY;
