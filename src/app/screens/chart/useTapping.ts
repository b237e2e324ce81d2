import { useEffect, useRef, useState } from 'react';
import { liveContext } from '../../adapters/audio';
import { wakeSound } from '../../state/heard';
import { liveMixer, useMix } from '../../state/mix';
import { readySound } from '../../state/sound';

/** A recording that is played for tapping along, and what was tapped: seconds in it. */
export interface Tapping {
  readonly times: readonly number[];
  readonly set: (times: readonly number[]) => void;
  readonly plays: boolean;
  /** Seconds in the recording that are heard now; null while it stands. */
  readonly now: number | null;
  readonly play: (from: number) => Promise<void>;
  readonly stop: () => void;
  readonly tap: () => void;
  readonly trouble: string | null;
}

interface Run {
  readonly source: AudioBufferSourceNode;
  /** The context's time at which the recording's first sample was heard, or would have been. */
  readonly zero: number;
}

export function useTapping(showId: string, audioId: string): Tapping {
  const [times, set] = useState<readonly number[]>([]);
  const [plays, setPlays] = useState(false);
  const [now, setNow] = useState<number | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const run = useRef<Run | null>(null);

  const end = (): void => {
    run.current?.source.stop();
    run.current = null;
  };
  useEffect(() => () => run.current?.source.stop(), []);
  useEffect(() => {
    if (!plays) return undefined;
    const timer = setInterval(() => setNow(heardAt(run.current)), 60);
    return () => clearInterval(timer);
  }, [plays]);

  const play = async (from: number): Promise<void> => {
    end();
    wakeSound();
    const [context, mixer, buffer] = [liveContext(), liveMixer(), await readySound(showId, audioId)];
    if (!context || !mixer) return setTrouble('The browser has no sound here.');
    if (!buffer) return setTrouble('The recording is not in this browser.');
    setTrouble(null);
    const source = new AudioBufferSourceNode(context, { buffer });
    source.connect(mixer.input('guide'));
    const at = context.currentTime + 0.05;
    source.start(at, from);
    const begun = { source, zero: at - from };
    run.current = begun;
    source.addEventListener('ended', () => {
      if (run.current !== begun && run.current !== null) return;
      setPlays(false);
      setNow(null);
    });
    setPlays(true);
  };
  return {
    times,
    set,
    plays,
    now,
    play,
    stop: () => {
      end();
      setPlays(false);
      setNow(null);
    },
    tap: () => {
      const at = heardAt(run.current);
      if (at !== null && at >= 0) set([...times, at]);
    },
    trouble,
  };
}

/** What of a recording is in the ears now, in seconds: behind what the context puts out by what the way takes. */
function heardAt(run: Run | null): number | null {
  const context = run && liveContext();
  if (!run || !context) return null;
  const { contextTime, performanceTime } = context.getOutputTimestamp();
  const delay = useMix.getState().delay / 1000;
  const heard =
    performanceTime && contextTime !== undefined
      ? contextTime + (performance.now() - performanceTime) / 1000
      : context.currentTime - context.outputLatency;
  return heard - delay - run.zero;
}
