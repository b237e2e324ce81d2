import { create } from 'zustand';

/** Whether what a song has to be heard is heard. */
export interface SoundState {
  /** Something is to be heard now, or soon. */
  readonly wanted: boolean;
  /** As the browser says of its sound: it runs, it stands, there is none, or it was refused. */
  readonly state: 'runs' | 'stands' | 'missing';
}

export const useHearing = create<SoundState>(() => ({ wanted: false, state: 'runs' }));

/** Why nothing is heard that should be, in one line; null where all is well. */
export function soundTrouble({ wanted, state }: SoundState): string | null {
  if (!wanted || state === 'runs') return null;
  return state === 'stands'
    ? 'The sound does not run: the browser waits for a press on this page, or its output is gone.'
    : 'This browser has no sound to give.';
}
