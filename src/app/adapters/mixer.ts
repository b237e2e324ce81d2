import type { Send } from '../../core/sound';

/** Where each source goes into a context, and how loud it is just now. */
export interface Mixer {
  /** Where a source goes in, as it is heard. */
  readonly input: (source: string) => AudioNode;
  /** How many outputs there are. */
  readonly outputs: number;
  /** The ways to the outputs from now on. */
  readonly send: (sends: readonly Send[]) => void;
  /** What a source is multiplied by on all its ways: 1 is as loud as it is programmed. */
  readonly level: (source: string, factor: number) => void;
  /** A tone on one output alone, from 0, to hear where it comes out. */
  readonly tone: (output: number) => void;
}

export const factorOf = (decibels: number): number => 10 ** (decibels / 20);

/** Seconds in which a level comes to another, so that nothing cracks. */
const GLIDE = 0.01;

interface Way {
  readonly out: Readonly<Record<Send['side'], AudioNode>>;
  readonly port: Readonly<Record<Send['side'], number>>;
  readonly input: GainNode;
  readonly gains: Map<string, GainNode>;
}

/** What tells one output from another. */
const TONE = { hertz: 440, seconds: 0.6, gain: 0.25 } as const;

/** The ways from sources to outputs of a context. */
export function createMixer(context: AudioContext): Mixer {
  const outputs = Math.max(1, context.destination.maxChannelCount);
  const merger = new ChannelMergerNode(context, { numberOfInputs: outputs });
  context.destination.channelCount = outputs;
  context.destination.channelCountMode = 'explicit';
  // More than stereo is no surround: each output is what it is.
  context.destination.channelInterpretation = outputs > 2 ? 'discrete' : 'speakers';
  merger.connect(context.destination);
  const stereo = { channelCount: 2, channelCountMode: 'explicit', channelInterpretation: 'speakers' } as const;
  const ways = new Map<string, Way>();
  const wayOf = (source: string): Way => {
    const known = ways.get(source);
    if (known) return known;
    const input = new GainNode(context, stereo);
    const split = new ChannelSplitterNode(context, { numberOfOutputs: 2 });
    const both = new GainNode(context, { ...stereo, channelCount: 1 });
    input.connect(split);
    input.connect(both);
    const out = { left: split, right: split, both };
    const way: Way = { input, out, port: { left: 0, right: 1, both: 0 }, gains: new Map() };
    ways.set(source, way);
    return way;
  };
  return {
    outputs,
    input: (source) => wayOf(source).input,
    send: (sends) => {
      const wanted = new Set(sends.map((s) => `${s.source}/${keyOf(s)}`));
      for (const [source, { gains }] of ways) {
        for (const [key, gain] of gains) {
          if (wanted.has(`${source}/${key}`)) continue;
          gain.disconnect();
          gains.delete(key);
        }
      }
      for (const send of sends) {
        const { out, port, gains } = wayOf(send.source);
        const key = keyOf(send);
        const before = gains.get(key);
        if (before) {
          before.gain.setTargetAtTime(send.factor, context.currentTime, GLIDE);
          continue;
        }
        const gain = new GainNode(context, { gain: send.factor });
        out[send.side].connect(gain, port[send.side]);
        gain.connect(merger, 0, send.output);
        gains.set(key, gain);
      }
    },
    tone: (output) => {
      const now = context.currentTime;
      const gain = new GainNode(context, { gain: TONE.gain });
      const sine = new OscillatorNode(context, { frequency: TONE.hertz });
      sine.connect(gain).connect(merger, 0, output);
      // It comes and goes without a click.
      gain.gain.setValueAtTime(0, now);
      gain.gain.linearRampToValueAtTime(TONE.gain, now + 0.02);
      gain.gain.setValueAtTime(TONE.gain, now + TONE.seconds - 0.02);
      gain.gain.linearRampToValueAtTime(0, now + TONE.seconds);
      sine.start(now);
      sine.stop(now + TONE.seconds);
    },
    level: (source, factor) => wayOf(source).input.gain.setTargetAtTime(factor, context.currentTime, GLIDE),
  };
}

const keyOf = ({ side, output }: Send): string => `${side}/${output}`;
