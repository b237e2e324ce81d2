import { newTone, type Tone, type TonePart } from '../show';
import { slotId } from './units';

interface Part {
  readonly slot?: string;
  readonly variant?: number;
  readonly set?: Readonly<Record<string, number>>;
  readonly ends?: Readonly<Record<string, 'on' | 'cut' | 'ring'>>;
}

function tone(id: string, name: string, parts: Readonly<Record<string, Part>>, notes = ''): Tone {
  const list = Object.entries(parts).map(([unitId, part]): TonePart => ({
    unitId,
    slotId: part.slot === undefined ? null : slotId(unitId, part.slot),
    variant: part.variant ?? null,
    controls: Object.entries(part.set ?? {}).map(([controlId, value]) => ({ controlId, value })),
    effects: Object.entries(part.ends ?? {}).map(([effectId, how]) => ({ effectId, how })),
  }));
  return { ...newTone(id, name, list), notes };
}

export const demoTones: readonly Tone[] = [
  tone(
    'still-water',
    'Still Water',
    {
      quillback: { slot: 'A3', variant: 0, ends: { delay: 'cut' } },
      harrow: { slot: '001', set: { active: 0 } },
      thistle: { slot: '01-1', set: { feedback: 15 } },
      marram: { slot: '01A', variant: 0 },
      tarn: { slot: '014', set: { mix: 20 } },
      wick: { slot: 'bank 1 look 01' },
    },
    'Between songs and under talking.',
  ),
  tone('harbour-clean', 'Harbour Clean', {
    quillback: { slot: 'A3', variant: 1, ends: { delay: 'cut' } },
    harrow: { slot: '001', set: { active: 0 } },
    thistle: { slot: '01-1', set: { feedback: 25 } },
    marram: { slot: '01A', variant: 1 },
    tarn: { slot: '014', set: { mix: 35 } },
    wick: { slot: 'bank 1 look 02' },
  }),
  tone('ledger-rhythm', 'Ledger Rhythm', {
    quillback: { slot: 'B1', variant: 1, ends: { delay: 'cut' } },
    thistle: { slot: '01-2' },
    marram: { slot: '02A', variant: 0, set: { fuzz: 0 } },
    tarn: { slot: '000' },
    wick: { slot: 'bank 1 look 05' },
  }),
  tone('ledger-echo', 'Ledger Echo', {
    quillback: { slot: 'B1', variant: 3, set: { 'delay-mix': 45 }, ends: { delay: 'on' } },
    marram: { variant: 2 },
  }),
  tone(
    'undertow',
    'Undertow',
    {
      quillback: { slot: 'C1', variant: 4 },
      marram: { slot: '12C', variant: 0, set: { fuzz: 1 } },
      tarn: { slot: '122' },
      wick: { slot: 'bank 1 look 02' },
    },
    'Baritone and bass an octave apart.',
  ),
  tone('rope-burn', 'Rope Burn', {
    quillback: { slot: 'B4', variant: 2, set: { drive: 1 } },
    marram: { slot: '02A', variant: 1, set: { fuzz: 0 } },
    tarn: { slot: '000' },
    wick: { slot: 'bank 1 look 05' },
  }),
  tone('rope-burn-echo', 'Rope Burn, Echo', {
    quillback: { slot: 'B4', variant: 3, set: { 'delay-mix': 30 }, ends: { delay: 'on' } },
  }),
  tone(
    'fog-lead',
    'Fog Lead',
    {
      quillback: { slot: 'H6', variant: 2, ends: { delay: 'on' } },
      harrow: { slot: '007', set: { active: 1, interval: 3, detune: -7 } },
      thistle: { slot: '12-3', set: { feedback: 45 } },
      marram: { slot: '02B', variant: 0 },
      tarn: { slot: '300', set: { mix: 40 } },
      wick: { slot: 'bank 2 look 08' },
    },
    'The solo sound of the evening.',
  ),
  tone('fog-lead-wide', 'Fog Lead, Wide', {
    quillback: { slot: 'H6', variant: 3, set: { 'delay-mix': 60 }, ends: { delay: 'on' } },
    wick: { slot: 'bank 2 look 01' },
  }),
  tone('choir', 'Choir of Gulls', {
    quillback: { slot: 'E4', variant: 3, set: { level: -3 }, ends: { delay: 'on' } },
    harrow: { slot: '012', set: { active: 1, interval: 4 } },
    thistle: { slot: '01-3' },
    tarn: { slot: '122', set: { mix: 55, hold: 0 } },
    wick: { slot: 'bank 2 look 01' },
  }),
  tone('held-breath', 'Held Breath', {
    quillback: { slot: 'E4', variant: 4, ends: { delay: 'ring' } },
    tarn: { slot: '122', set: { mix: 70, hold: 1 } },
    wick: { slot: 'bank 2 look 08' },
  }),
];
