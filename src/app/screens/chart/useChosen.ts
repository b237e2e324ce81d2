import { useState } from 'react';

const NOTHING: ReadonlySet<string> = new Set();

/** What is chosen on a chart: cues, or one sweep. */
export interface Chosen {
  readonly cues: ReadonlySet<string>;
  readonly sweepId: string | null;
  readonly choose: (cueIds: ReadonlySet<string>) => void;
  readonly chooseSweep: (id: string) => void;
  readonly clear: () => void;
  /** Adds a cue to those that are chosen, or takes it from them; alone, it takes their place. */
  readonly pick: (cueId: string, add: boolean) => void;
}

export function useChosen(cueId: string | null, sweep: string | null): Chosen {
  const [cues, setCues] = useState<ReadonlySet<string>>(() => (cueId === null ? NOTHING : new Set([cueId])));
  const [sweepId, setSweepId] = useState(sweep);
  const choose = (ids: ReadonlySet<string>): void => {
    setCues(ids);
    setSweepId(null);
  };
  return {
    cues,
    sweepId,
    choose,
    clear: () => choose(NOTHING),
    chooseSweep: (id) => {
      setCues(NOTHING);
      setSweepId(id);
    },
    pick: (id, add) => {
      if (!add) choose(new Set([id]));
      else choose(cues.has(id) ? new Set([...cues].filter((x) => x !== id)) : new Set([...cues, id]));
    },
  };
}
