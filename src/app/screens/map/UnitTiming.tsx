import { fromHex, toHex, wholeMessages } from '../../../core/midi';
import { Check } from '../../widgets/Check';
import type { Profile, Time, TimedThing } from '../../../core/addressing';
import { RANGES, figureIn, rangeWords, setUnitRoom, type Range, type RoomField } from '../../../core/show';
import { TimeField } from '../../features/TimeField';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { MeasureTimes } from './MeasureTimes';
import { MeasureWalk } from './MeasureWalk';
import { useProfile } from './useProfile';
import { Part, type Props } from './unitParts';

const TIMES = [
  ['recall', 'From a program change to the sound'],
  ['settle', 'Until it listens again after one'],
  ['variant', 'A scene, snapshot or the like'],
  ['control', 'A control'],
  ['thru', 'Passing a message on through its thru'],
] as const;

export function Times({ unit }: Props) {
  const change = useProfile(unit);
  const { profile } = unit;
  const set = (key: TimedThing, time: Time | null): string | null =>
    time && change({ ...profile, times: { ...profile.times, [key]: time } }, 'change a time');
  return (
    <Part aria-label="Times">
      <h2>How long it takes, in ms</h2>
      {TIMES.map(([key, label]) => (
        <TimeField key={key} label={label} time={profile.times[key]} set={(time) => set(key, time)} />
      ))}
      <UnitRoom unit={unit} />
      <Pick
        label="Messages that come before it listens again"
        value={profile.whileSettling}
        onPick={(id) => void change({ ...profile, whileSettling: id }, 'change how it settles')}
        choices={[
          { id: 'ignore', name: 'are lost' },
          { id: 'queue', name: 'wait and are obeyed' },
        ]}
      />
      <div style={{ display: 'flex', flexWrap: 'wrap', gap: 8 }}>
        <MeasureTimes unit={unit} />
        <MeasureWalk unit={unit} />
      </div>
    </Part>
  );
}

/** What plans keep free around the changes of this unit, where that is not as everywhere. */
function UnitRoom({ unit }: Props) {
  const show = useShow();
  const field = (of: RoomField, label: string, range: Range) => (
    <DraftField
      label={label}
      value={unit[of] === null ? '' : String(unit[of])}
      placeholder={`${show[of]}, as the show`}
      numeric
      commit={(text) => {
        const millis = text.trim() === '' ? null : figureIn(range, text);
        if (millis === undefined) return `${rangeWords(range)} ms, or nothing for the show's`;
        perform(setUnitRoom(show, unit.id, of, millis), `change the ${of} of a unit`);
        return null;
      }}
    />
  );
  return (
    <>
      {field('margin', 'Margin before the beat', RANGES.marginMillis)}
      {field('guard', 'Guard after settling', RANGES.guardMillis)}
    </>
  );
}

const YES = 'yes';

const yesNo = (yes: string, no: string) => [
  { id: YES, name: yes },
  { id: 'no', name: no },
];

export const NONE = 'none';

export function Habits({ unit }: Props) {
  const change = useProfile(unit);
  const { profile } = unit;
  const { recallLoads } = profile;
  return (
    <Part aria-label="Habits">
      <h2>What a recall does</h2>
      <Pick
        label="Its preset's own variant"
        value={recallLoads.variant ? YES : 'no'}
        choices={yesNo('comes with the preset', 'stays as it was before')}
        onPick={(id) =>
          void change({ ...profile, recallLoads: { ...recallLoads, variant: id === YES } }, 'change a habit')
        }
      />
      <Pick
        label="Control values"
        value={recallLoads.controls ? YES : 'no'}
        choices={yesNo('come with the preset', 'stay as they were before')}
        onPick={(id) =>
          void change({ ...profile, recallLoads: { ...recallLoads, controls: id === YES } }, 'change a habit')
        }
      />
      <Pick
        label="While it loads"
        value={profile.silentInGap ? YES : 'no'}
        choices={yesNo('it is silent', 'the old sound goes on')}
        onPick={(id) => void change({ ...profile, silentInGap: id === YES }, 'change a habit')}
      />
      <Pick
        label="After a recall, what has to be sent to engage it"
        value={profile.engage ?? NONE}
        choices={[
          { id: NONE, name: 'nothing: recalling is enough' },
          ...profile.controls.map(({ id, name }) => ({ id, name })),
        ]}
        onPick={(id) => void change({ ...profile, engage: id === NONE ? null : id }, 'change recall then engage')}
      />
      <Check
        isSelected={profile.silence.usual}
        onChange={(usual) =>
          void change({ ...profile, silence: { ...profile.silence, usual } }, 'change what makes it silent')
        }
      >
        All sound off sends controls 120 and 123
      </Check>
      <Silence profile={profile} change={change} />
    </Part>
  );
}

interface SilenceProps {
  readonly profile: Profile;
  readonly change: (next: Profile, label: string) => string | null;
}

/** What ends every sound on the unit, and the settings of its panel. */
function Silence({ profile, change }: SilenceProps) {
  return (
    <>
      <DraftField
        label="All sound off also sends (whole messages, in hexadecimal)"
        value={profile.silence.bytes.toUpperCase().replace(/(..)(?=.)/g, '$1 ')}
        placeholder="B0 07 00"
        commit={(text) => {
          const bytes = fromHex(text);
          if (!bytes || (bytes.length > 0 && !wholeMessages(bytes)))
            return 'whole messages, two digits a byte, or nothing';
          void change(
            { ...profile, silence: { ...profile.silence, bytes: toHex(bytes) } },
            'change what makes it silent',
          );
          return null;
        }}
      />
      <DraftField
        label="Panel settings of a stored state (with commas)"
        value={profile.panel.join(', ')}
        placeholder="channel, EQ, loop, reverb"
        commit={(text) => {
          const panel = [
            ...new Set(
              text
                .split(',')
                .map((t) => t.trim().slice(0, 40))
                .filter((t) => t !== ''),
            ),
          ];
          if (panel.length > 32) return 'at most 32';
          return change({ ...profile, panel }, 'describe its panel');
        }}
      />
    </>
  );
}
