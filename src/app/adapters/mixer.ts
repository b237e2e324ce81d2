import { SOURCES, type Source } from '../../core/sound';

/** Outputs of the sound card, from 0: of one, both sides of a sound go there; of two, left and right. */
export type Route = readonly number[];
export type Routes = Readonly<Record<Source, Route>>;

export const BOTH: Route = [0, 1];
export const ALL_BOTH: Routes = { click: BOTH, calls: BOTH, backing: BOTH, guide: BOTH, samples: BOTH };

/** Where each source goes into a context, and how loud it is just now. */
export interface Mixer {
  readonly input: (source: Source) => AudioNode;
  /** How many outputs there are. */
  readonly outputs: number;
  readonly route: (routes: Routes) => void;
  /** Decibels beside what is programmed. */
  readonly trim: (source: Source, gain: number) => void;
}

export const factorOf = (decibels: number): number => 10 ** (decibels / 20);

/** The way from sources to outputs. An output that the sound card has not, goes to the first. */
export function createMixer(context: AudioContext): Mixer {
  const outputs = Math.max(1, context.destination.maxChannelCount);
  const merger = new ChannelMergerNode(context, { numberOfInputs: outputs });
  context.destination.channelCount = outputs;
  context.destination.channelCountMode = 'explicit';
  // More than stereo is no surround: each output is what it is.
  context.destination.channelInterpretation = outputs > 2 ? 'discrete' : 'speakers';
  merger.connect(context.destination);
  const stereo = { channelCount: 2, channelCountMode: 'explicit', channelInterpretation: 'speakers' } as const;
  const inputs = new Map(
    SOURCES.map((source) => {
      const input = new GainNode(context, stereo);
      const split = new ChannelSplitterNode(context, { numberOfOutputs: 2 });
      const mono = new GainNode(context, { ...stereo, channelCount: 1 });
      input.connect(split);
      input.connect(mono);
      return [source, { input, split, mono }] as const;
    }),
  );
  const there = (output: number): number => (output < outputs ? output : 0);
  return {
    outputs,
    input: (source) => inputs.get(source)!.input,
    route: (routes) => {
      for (const [source, { split, mono }] of inputs) {
        split.disconnect();
        mono.disconnect();
        const [left, right] = routes[source];
        if (left === undefined) continue;
        if (right === undefined || there(left) === there(right)) mono.connect(merger, 0, there(left));
        else {
          split.connect(merger, 0, there(left));
          split.connect(merger, 1, there(right));
        }
      }
    },
    trim: (source, gain) => inputs.get(source)!.input.gain.setTargetAtTime(factorOf(gain), context.currentTime, 0.01),
  };
}
