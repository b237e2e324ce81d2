import { create } from 'zustand';

/** What is chosen for practice and belongs to this tab: what of recordings is heard at another speed than theirs. */
interface Rehearsal {
  readonly recordings: 'pitch' | 'silent';
}

export const useRehearsal = create<Rehearsal>(() => ({ recordings: 'pitch' }));
