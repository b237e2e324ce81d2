import { useState } from 'react';
import { isContinuous, valueRange, isOnOff } from '../../../../core/addressing';
import {
  RANGES,
  SESSION_ACTS,
  figureIn,
  indexShow,
  putReaction,
  rangeWords,
  sourcesOf,
  type Reaction,
  type Show,
  type Turn,
} from '../../../../core/show';
import { SESSION_WORDS } from '../../../../wording';
import { FormProblem, Soft } from '../../../widgets/controls';
import { DraftField } from '../../../widgets/DraftField';
import { Pick } from '../../../widgets/Pick';
import { SoundFileButton } from '../../../widgets/SoundFileButton';
import { newId, perform } from '../../../state/desk';
import { FADER } from '../../../state/mix';
import { takeSound } from '../../../state/sound';
import { useShow } from '../../../state/store';

type Does = Reaction['does'];
type DoesOf<K extends Does['kind']> = Extract<Does, { kind: K }>;

const KINDS: Readonly<Record<Does['kind'], string>> = {
  session: 'Play, stop, step',
  song: 'A song',
  tone: 'A tone',
  move: 'A move',
  sample: 'A sound',
  level: 'A level, along a fader',
  turn: 'The click, or a sound, on and off',
  part: 'A missing player’s part',
  control: 'A control, along a pedal',
  switch: 'A switch, thrown by a pedal',
  message: 'Another message',
};

const ACTS = SESSION_ACTS.map((id) => ({ id, name: SESSION_WORDS[id] }));
const HOWS = [
  { id: 'start', name: 'starts' },
  { id: 'queue', name: 'comes next' },
  { id: 'select', name: 'is gone to' },
];
const TURNS = [
  { id: 'flip', name: 'on and off in turn' },
  { id: 'on', name: 'on' },
  { id: 'off', name: 'off' },
];
const BENDS = [
  { id: 'straight', name: 'straight' },
  { id: 'slow', name: 'slow at first' },
  { id: 'fast', name: 'fast at first' },
];

/** Controls that a pedal can move, and those that it can throw, by unit. */
const controlsOf = (show: Show, kind: 'control' | 'switch') =>
  show.units.flatMap((u) =>
    u.profile.controls
      .filter((c) => (kind === 'control' ? isContinuous(c.encoding) : isOnOff(c.encoding)))
      .map((c) => ({ id: `${u.id}/${c.id}`, name: `${u.name}: ${c.name}`, unitId: u.id, control: c })),
  );

/** What a kind of reaction does to begin with; null where the show has nothing for it. */
function beginning(show: Show, kind: Does['kind']): Does | null {
  const [tone, move, song, port] = [show.tones[0], show.moves[0], show.songs[0], show.ports[0]];
  const curve = { from: 0, to: 127, bend: 'straight' } as const;
  switch (kind) {
    case 'session':
      return { kind, act: 'next-change' };
    case 'song':
      return song ? { kind, songId: song.id, how: 'start' } : null;
    case 'tone':
      return tone ? { kind, toneId: show.core[0] ?? tone.id } : null;
    case 'move':
      return move ? { kind, moveId: move.id } : null;
    case 'sample':
      return show.audio[0] ? { kind, audioId: show.audio[0].id, gain: 0 } : null;
    case 'level':
      return { kind, of: 'click', from: FADER[0], to: FADER[1] };
    case 'turn':
      return { kind, of: 'click', how: 'flip' };
    case 'part':
      return show.players[0] ? { kind, playerId: show.players[0].id, how: 'flip' } : null;
    case 'message':
      return port ? { kind, portId: port.id, channel: null, number: null, curve } : null;
    case 'control': {
      const first = controlsOf(show, kind)[0];
      if (!first) return null;
      const { low, high } = valueRange(first.control.encoding);
      return { kind, unitId: first.unitId, controlId: first.control.id, curve: { ...curve, from: low, to: high } };
    }
    case 'switch': {
      const first = controlsOf(show, kind)[0];
      return first
        ? { kind, unitId: first.unitId, controlId: first.control.id, above: 8, below: 2, millis: 120 }
        : null;
    }
  }
}

const MISSING: Readonly<Partial<Record<Does['kind'], string>>> = {
  song: 'The book has no song yet.',
  tone: 'There is no tone yet.',
  move: 'There is no move yet.',
  part: 'There is no player yet.',
  message: 'The rig has no port yet.',
  control: 'No unit has a control that a pedal can move.',
  switch: 'No unit has a switch with an on and an off of its own.',
};

interface Props {
  readonly reaction: Reaction;
  readonly onChange: (does: Does) => void;
}

/** What a reaction does: of which kind, and what belongs to that. */
export function DoesFields({ reaction, onChange }: Props) {
  const show = useShow();
  const { does } = reaction;
  const [problem, setProblem] = useState<string | null>(null);
  const [wantsSound, setWantsSound] = useState(false);
  const pick = (kind: Does['kind']): void => {
    const next = beginning(show, kind);
    setWantsSound(kind === 'sample' && !next);
    setProblem(next || kind === 'sample' ? null : (MISSING[kind] ?? null));
    if (next) onChange(next);
  };
  const take = async (file: File): Promise<void> => {
    const audioId = newId();
    const taken = await takeSound(show.id, audioId, file, () => undefined);
    if ('problem' in taken) return setProblem(taken.problem);
    setWantsSound(false);
    setProblem(null);
    perform(
      putReaction(show, { ...reaction, does: { kind: 'sample', audioId, gain: 0 } }, taken.audio),
      `add ${taken.audio.name}`,
    );
  };
  return (
    <>
      <Pick
        label="Kind"
        value={wantsSound ? 'sample' : does.kind}
        choices={Object.entries(KINDS).map(([id, name]) => ({ id, name }))}
        onPick={(id) => pick(id as Does['kind'])}
      />
      {problem !== null && <FormProblem>{problem}</FormProblem>}
      {does.kind === 'session' && !wantsSound && (
        <Pick
          label="What"
          value={does.act}
          choices={ACTS}
          onPick={(act) => onChange({ ...does, act: act as typeof does.act })}
        />
      )}
      {does.kind === 'song' && (
        <>
          <Pick
            label="Song"
            value={does.songId}
            choices={show.songs.map((s) => ({ id: s.id, name: s.title }))}
            onPick={(songId) => onChange({ ...does, songId })}
          />
          <Pick
            label="It"
            value={does.how}
            choices={HOWS}
            onPick={(how) => onChange({ ...does, how: how as typeof does.how })}
          />
        </>
      )}
      {does.kind === 'tone' && (
        <Pick
          label="Tone"
          value={does.toneId}
          choices={show.tones}
          onPick={(toneId) => onChange({ ...does, toneId })}
        />
      )}
      {does.kind === 'move' && (
        <Pick
          label="Move"
          value={does.moveId}
          choices={show.moves}
          onPick={(moveId) => onChange({ ...does, moveId })}
        />
      )}
      {(does.kind === 'sample' || wantsSound) && (
        <>
          {does.kind === 'sample' && (
            <>
              <Pick
                label="Sound"
                value={does.audioId}
                choices={show.audio}
                onPick={(audioId) => onChange({ ...does, audioId })}
              />
              <Figure
                label="Level (dB)"
                value={does.gain}
                range={RANGES.gain}
                onTake={(gain) => onChange({ ...does, gain })}
              />
            </>
          )}
          <SoundFileButton label="Add a sound file" onFile={(file) => void take(file)} />
        </>
      )}
      {(does.kind === 'level' || does.kind === 'turn') && (
        <Pick label="Of" value={does.of} choices={sourcesOf(show)} onPick={(of) => onChange({ ...does, of })} />
      )}
      {does.kind === 'part' && (
        <Pick
          label="Player"
          value={does.playerId}
          choices={show.players}
          onPick={(playerId) => onChange({ ...does, playerId })}
        />
      )}
      {(does.kind === 'turn' || does.kind === 'part') && (
        <Pick label="Goes" value={does.how} choices={TURNS} onPick={(how) => onChange({ ...does, how: how as Turn })} />
      )}
      {does.kind === 'level' && (
        <>
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
      )}
      {does.kind === 'control' && <ControlFields does={does} onChange={onChange} />}
      {does.kind === 'switch' && <SwitchFields does={does} onChange={onChange} />}
      {does.kind === 'message' && <MessageFields does={does} onChange={onChange} />}
    </>
  );
}

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

interface FieldsProps<K extends Does['kind']> {
  readonly does: DoesOf<K>;
  readonly onChange: (does: Does) => void;
}

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
        label="On from"
        value={does.above}
        range={[does.below + 1, 127]}
        onTake={(above) => onChange({ ...does, above: Math.round(above) })}
      />
      <Figure
        label="Off at"
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
  <Pick label="Curve" value={bend} choices={BENDS} onPick={(id) => onPick(id as BendOf)} />
);
