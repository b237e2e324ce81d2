import { create } from 'zustand';
import type { Cue } from '../../../core/show';

/** Cues that were copied; they are put down in any song of the show. */
export const useCueClipboard = create<{ readonly cues: readonly Cue[] }>(() => ({ cues: [] }));
