import type { ComponentType } from 'react';
import { valueRange } from '../../../../core/addressing';
import { RANGES, SESSION_ACTS, figureIn, indexShow, rangeWords, sourcesOf, type Turn } from '../../../../core/show';
import { SESSION_WORDS } from '../../../../wording';
import { Soft } from '../../../widgets/controls';
import { DraftField } from '../../../widgets/DraftField';
import { Pick } from '../../../widgets/Pick';
import { useShow } from '../../../state/store';
import { controlsOf, type Does } from './kinds';

type DoesOf<K extends Does['kind']> = Extract<Does, { kind: K }>;

interface FieldsProps<K extends Does['kind']> {
  readonly does: DoesOf<K>;
  readonly onChange: (does: Does) => void;
}

const ACTS = SESSION_ACTS.map((id) => ({ id, name: SESSION_WORDS[id] }));
const HOWS = [
  { id: 'start', name: 'starts' },
  { id: 'queue', name: 'comes next' },
  { id: 'select', name: 'is gone to' },
] as const;
const TURNS = [
  { id: 'flip', name: 'on and off in turn' },
  { id: 'on', name: 'on' },
  { id: 'off', name: 'off' },
] as const;
const BENDS = [
  { id: 'straight', name: 'straight' },
  { id: 'slow', name: 'slow at first' },
  { id: 'fast', name: 'fast at first' },
] as const;

interface FigureProps {
  readonly label: string;
  readonly value: number;
  readonly range: readonly [number, number];
  readonly onTake: (value: number) => void;
}

function Figure({ label, value, range, onTake }: FigureProps) {
  return (
    <DraftField
      label={label}
      numeric
      value={String(value)}
      commit={(text) => {
        const typed = figureIn(range, text);
        if (typed === undefined) return rangeWords(range);
        onTake(typed);
        return null;
      }}
    />
  );
}

function SessionFields({ does, onChange }: FieldsProps<'session'>) {
  return <Pick label="What" value={does.act} choices={ACTS} onPick={(act) => onChange({ ...does, act })} />;
}

function SongFields({ does, onChange }: FieldsProps<'song'>) {
  const show = useShow();
  return (
    <>
      <Pick
        label="Song"
        value={does.songId}
        choices={show.songs.map((s) => ({ id: s.id, name: s.title }))}
        onPick={(songId) => onChange({ ...does, songId })}
      />
      <Pick label="It" value={does.how} choices={HOWS} onPick={(how) => onChange({ ...does, how })} />
    </>
  );
}

function ToneFields({ does, onChange }: FieldsProps<'tone'>) {
  const { tones } = useShow();
  return <Pick label="Tone" value={does.toneId} choices={tones} onPick={(toneId) => onChange({ ...does, toneId })} />;
}

function MoveFields({ does, onChange }: FieldsProps<'move'>) {
  const { moves } = useShow();
  return <Pick label="Move" value={does.moveId} choices={moves} onPick={(moveId) => onChange({ ...does, moveId })} />;
}

function SampleFields({ does, onChange }: FieldsProps<'sample'>) {
  const { audio } = useShow();
  return (
    <>
      <Pick label="Sound" value={does.audioId} choices={audio} onPick={(audioId) => onChange({ ...does, audioId })} />
      <Figure label="Level (dB)" value={does.gain} range={RANGES.gain} onTake={(gain) => onChange({ ...does, gain })} />
    </>
  );
}

function LevelFields({ does, onChange }: FieldsProps<'level'>) {
  const show = useShow();
  return (
    <>
      <Pick label="Of" value={does.of} choices={sourcesOf(show)} onPick={(of) => onChange({ ...does, of })} />
      <Figure
        label="At the low end (dB)"
        value={does.from}
        range={RANGES.gain}
        onTake={(from) => onChange({ ...does, from })}
      />
      <Figure
        label="At the high end (dB)"
        value={does.to}
        range={RANGES.gain}
        onTake={(to) => onChange({ ...does, to })}
      />
      <Soft style={{ fontSize: 13 }}>
        It takes the level over where it is: a fader that stands elsewhere moves nothing until it comes by.
      </Soft>
    </>
  );
}

function TurnFields({ does, onChange }: FieldsProps<'turn'>) {
  const show = useShow();
  return (
    <>
      <Pick label="Of" value={does.of} choices={sourcesOf(show)} onPick={(of) => onChange({ ...does, of })} />
      <Goes how={does.how} onPick={(how) => onChange({ ...does, how })} />
    </>
  );
}

function PartFields({ does, onChange }: FieldsProps<'part'>) {
  const { players } = useShow();
  return (
    <>
      <Pick
        label="Player"
        value={does.playerId}
        choices={players}
        onPick={(playerId) => onChange({ ...does, playerId })}
      />
      <Goes how={does.how} onPick={(how) => onChange({ ...does, how })} />
    </>
  );
}

const Goes = ({ how, onPick }: { readonly how: Turn; readonly onPick: (how: Turn) => void }) => (
  <Pick label="Goes" value={how} choices={TURNS} onPick={onPick} />
);

function ControlFields({ does, onChange }: FieldsProps<'control'>) {
  const show = useShow();
  const all = controlsOf(show, 'control');
  const chosen = all.find((c) => c.unitId === does.unitId && c.control.id === does.controlId);
  const range = chosen ? valueRange(chosen.control.encoding) : { low: 0, high: 127 };
  const between = [range.low, range.high] as const;
  const { curve } = does;
  return (
    <>
      <Pick
        label="Control"
        value={`${does.unitId}/${does.controlId}`}
        choices={all}
        onPick={(id) => {
          const next = all.find((c) => c.id === id)!;
          const { low, high } = valueRange(next.control.encoding);
          onChange({
            ...does,
            unitId: next.unitId,
            controlId: next.control.id,
            curve: { ...curve, from: low, to: high },
          });
        }}
      />
      <Figure
        label="At the low end"
        value={curve.from}
        range={between}
        onTake={(from) => onChange({ ...does, curve: { ...curve, from } })}
      />
      <Figure
        label="At the high end"
        value={curve.to}
        range={between}
        onTake={(to) => onChange({ ...does, curve: { ...curve, to } })}
      />
      <Bend bend={curve.bend} onPick={(bend) => onChange({ ...does, curve: { ...curve, bend } })} />
      <Soft style={{ fontSize: 13 }}>
        When the tone changes, it goes back to what the tone wants of it, or to its rest.
      </Soft>
    </>
  );
}

function SwitchFields({ does, onChange }: FieldsProps<'switch'>) {
  const show = useShow();
  return (
    <>
      <Pick
        label="Switch"
        value={`${does.unitId}/${does.controlId}`}
        choices={controlsOf(show, 'switch')}
        onPick={(id) => {
          const next = controlsOf(show, 'switch').find((c) => c.id === id)!;
          onChange({ ...does, unitId: next.unitId, controlId: next.control.id });
        }}
      />
      <Figure
        label="On above"
        value={does.above}
        range={[does.below + 1, 127]}
        onTake={(above) => onChange({ ...does, above: Math.round(above) })}
      />
      <Figure
        label="Off below"
        value={does.below}
        range={[0, does.above - 1]}
        onTake={(below) => onChange({ ...does, below: Math.round(below) })}
      />
      <Figure
        label="When it stands there for (ms)"
        value={does.millis}
        range={RANGES.holdMillis}
        onTake={(millis) => onChange({ ...does, millis })}
      />
    </>
  );
}

const SAME = 'same';
const DATA = [0, 127] as const;

function MessageFields({ does, onChange }: FieldsProps<'message'>) {
  const show = useShow();
  const { ports } = indexShow(show);
  const { curve } = does;
  return (
    <>
      <Pick
        label="Out of"
        value={ports.has(does.portId) ? does.portId : ''}
        choices={show.ports}
        onPick={(portId) => onChange({ ...does, portId })}
      />
      <Pick
        label="On channel"
        value={does.channel === null ? SAME : String(does.channel)}
        choices={[
          { id: SAME, name: 'the same' },
          ...Array.from({ length: 16 }, (_, i) => ({ id: String(i + 1), name: String(i + 1) })),
        ]}
        onPick={(id) => onChange({ ...does, channel: id === SAME ? null : Number(id) })}
      />
      <DraftField
        label="With number, from 0 (empty for the same)"
        numeric
        value={does.number === null ? '' : String(does.number)}
        commit={(text) => {
          const number = text.trim() === '' ? null : figureIn(DATA, text);
          if (number === undefined || (number !== null && !Number.isInteger(number))) return '0 to 127, or nothing';
          onChange({ ...does, number });
          return null;
        }}
      />
      <Figure
        label="Value at the low end"
        value={curve.from}
        range={DATA}
        onTake={(from) => onChange({ ...does, curve: { ...curve, from } })}
      />
      <Figure
        label="Value at the high end"
        value={curve.to}
        range={DATA}
        onTake={(to) => onChange({ ...does, curve: { ...curve, to } })}
      />
      <Bend bend={curve.bend} onPick={(bend) => onChange({ ...does, curve: { ...curve, bend } })} />
    </>
  );
}

type BendOf = DoesOf<'control'>['curve']['bend'];

const Bend = ({ bend, onPick }: { readonly bend: BendOf; readonly onPick: (bend: BendOf) => void }) => (
  <Pick label="Curve" value={bend} choices={BENDS} onPick={onPick} />
);

/** The fields that belong to each kind of what a reaction does. */
export const KIND_FIELDS: { readonly [K in Does['kind']]: ComponentType<FieldsProps<K>> } = {
  session: SessionFields,
  song: SongFields,
  tone: ToneFields,
  move: MoveFields,
  sample: SampleFields,
  level: LevelFields,
  turn: TurnFields,
  part: PartFields,
  control: ControlFields,
  switch: SwitchFields,
  message: MessageFields,
};
