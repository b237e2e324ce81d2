import type { LibraryEntry } from '../../core/library';
import type { WithRecordings } from '../../core/demo';

// What never changes comes with the application, in parts of its own that are fetched when they are wanted.

export const demoShows = {
  demo: async (): Promise<WithRecordings> => {
    const { demoShow, withRecordings } = await import('../../core/demo');
    return withRecordings(demoShow());
  },
  faults: async (): Promise<WithRecordings> => {
    const { faultyDemo, withRecordings } = await import('../../core/demo');
    return withRecordings(faultyDemo());
  },
} as const;

export const unitLibrary = async (): Promise<readonly LibraryEntry[]> => (await import('../../core/library')).LIBRARY;
