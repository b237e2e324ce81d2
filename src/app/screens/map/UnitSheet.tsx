import { Copy, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { compareProfiles, type Effect, type Profile } from '../../../core/addressing';
import {
  LIMITS,
  addVersion,
  copyMap,
  indexShow,
  switchVersion,
  type Unit,
  RANGES,
  figureIn,
  rangeWords,
} from '../../../core/show';
import { differenceSentence } from '../../../wording';
import { DialogButton } from '../../components/DialogButton';
import { Button, Field, Input, Label, MainButton, SignButton, Soft } from '../../components/controls';
import { Choices } from '../../components/Choices';
import { Last, Rows } from '../../components/dialogParts';
import { DraftField } from '../../components/DraftField';
import { Pick } from '../../components/Pick';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { MeasureTimes } from './MeasureTimes';
import { takeChange, useProfile } from './useProfile';

const Scroller = styled.div`
  overflow: auto;
  padding: 6px 20px 24px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 16px 26px;
  align-content: start;
`;

const Part = styled.section`
  display: grid;
  gap: 9px;
  align-content: start;
  & h2 {
    font-size: 17px;
    padding-bottom: 5px;
    border-bottom: 1.5px solid ${desk.ink};
  }
`;

const Stack = styled.div`
  display: grid;
  gap: 18px;
  align-content: start;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
`;

const Differences = styled.ul`
  display: grid;
  gap: 5px;
  margin: 0;
  padding-left: 20px;
`;

interface Props {
  readonly unit: Unit;
}

/** What a unit is like beyond its numbers: how long it takes, what a preset brings along, what rings on, and with which firmware. */
export function UnitSheet({ unit }: Props) {
  return (
    <Scroller>
      <Times unit={unit} />
      <Habits unit={unit} />
      <Stack>
        <Effects unit={unit} />
        <Versions unit={unit} />
      </Stack>
    </Scroller>
  );
}

const TIMES = [
  ['recall', 'From a program change to the sound'],
  ['settle', 'Until it listens again after one'],
  ['variant', 'A scene, snapshot or the like'],
  ['control', 'A control'],
] as const;

function Times({ unit }: Props) {
  const change = useProfile(unit);
  const { profile } = unit;
  const set = (key: keyof Profile['times'], text: string): string | null => {
    const value = figureIn(RANGES.unitMillis, text.replace(/\s*ms\s*$/, ''));
    if (value === undefined) return `${rangeWords(RANGES.unitMillis)} ms`;
    return change({ ...profile, times: { ...profile.times, [key]: value } }, 'change a time');
  };
  return (
    <Part aria-label="Times">
      <h2>How long it takes, in ms</h2>
      {TIMES.map(([key, label]) => (
        <DraftField
          key={key}
          label={label}
          value={String(profile.times[key])}
          numeric
          commit={(text) => set(key, text)}
        />
      ))}
      <Pick
        label="Messages that come before it listens again"
        value={profile.whileSettling}
        onPick={(id) =>
          void change({ ...profile, whileSettling: id as Profile['whileSettling'] }, 'change how it settles')
        }
        choices={[
          { id: 'ignore', name: 'are lost' },
          { id: 'queue', name: 'wait and are obeyed' },
        ]}
      />
      <div>
        <MeasureTimes unit={unit} />
      </div>
    </Part>
  );
}

const YES = 'yes';
const yesNo = (yes: string, no: string) => [
  { id: YES, name: yes },
  { id: 'no', name: no },
];
const NONE = 'none';

function Habits({ unit }: Props) {
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
    </Part>
  );
}

function Effects({ unit }: Props) {
  const change = useProfile(unit);
  const { profile } = unit;
  const switches = profile.controls.filter((c) => c.encoding.kind === 'set-switch' || c.encoding.kind === 'momentary');
  const put = (effects: readonly Effect[], label: string): string | null => change({ ...profile, effects }, label);
  const of = (i: number, part: Partial<Effect>): void => {
    put(profile.effects.with(i, { ...profile.effects[i]!, ...part }), 'change an effect');
  };
  const choices = switches.map(({ id, name }) => ({ id, name }));
  return (
    <Part aria-label="Effects">
      <h2>Trails: cut or ringing out</h2>
      {profile.effects.map((effect, i) => (
        <Row key={effect.id}>
          <DraftField
            label="Effect"
            value={effect.name}
            style={{ width: 74 }}
            commit={(text) =>
              text.trim() === ''
                ? 'a name'
                : put(
                    profile.effects.with(i, { ...effect, name: text.trim().slice(0, LIMITS.name) }),
                    'rename an effect',
                  )
            }
          />
          <Pick
            label="Switch that cuts it"
            width="100px"
            value={effect.cut}
            choices={choices}
            onPick={(cut) => of(i, { cut })}
          />
          <Pick
            label="Switch that lets it ring"
            width="92px"
            value={effect.ring ?? NONE}
            choices={[{ id: NONE, name: 'no such switch' }, ...choices]}
            onPick={(id) => of(i, { ring: id === NONE ? null : id })}
          />
          <SignButton
            aria-label={`Remove the effect ${effect.name}`}
            onPress={() => put(profile.effects.toSpliced(i, 1), 'remove an effect')}
          >
            <Trash2 size={16} />
          </SignButton>
        </Row>
      ))}
      {profile.effects.length === 0 && <Soft>None of its effects rings on, as far as the map knows.</Soft>}
      <div>
        <Button
          isDisabled={switches.length === 0}
          onPress={() => {
            const [first] = switches;
            if (first)
              put([...profile.effects, { id: newId(), name: first.name, cut: first.id, ring: null }], 'add an effect');
          }}
        >
          <Plus size={15} aria-hidden /> Add an effect
        </Button>
      </div>
      {switches.length === 0 && <Soft>It needs a control that switches on and off.</Soft>}
    </Part>
  );
}

function Versions({ unit }: Props) {
  const show = useShow();
  const change = useProfile(unit);
  const [name, setName] = useState('');
  const [refused, setRefused] = useState<string | null>(null);
  const { profile, versions } = unit;
  const adding = addVersion(show, unit.id, name);
  return (
    <Part aria-label="Versions">
      <h2>Firmware</h2>
      <DraftField
        label="This map is for firmware"
        value={profile.firmware}
        commit={(text) => change({ ...profile, firmware: text.trim().slice(0, 24) }, 'name the firmware')}
      />
      {versions.map((version, i) => (
        <Row key={version.firmware}>
          <span style={{ flex: 1 }}>
            Firmware <b>{version.firmware || 'without a name'}</b>
          </span>
          <DialogButton face="Compare and switch" title={`${unit.name} with firmware ${version.firmware}`} width={560}>
            {(close) => (
              <Rows>
                <Differences aria-label="Differences">
                  {compareProfiles(profile, version).map((d, k) => (
                    <li key={k}>{differenceSentence(d)}</li>
                  ))}
                </Differences>
                {compareProfiles(profile, version).length === 0 && <Soft>No message differs.</Soft>}
                {refused !== null && <Soft role="alert">{refused}</Soft>}
                <Last>
                  <Button onPress={close}>Stay with {profile.firmware || 'this'}</Button>
                  <MainButton
                    onPress={() => {
                      const sentence = takeChange(
                        switchVersion(show, unit.id, i),
                        `switch to firmware ${version.firmware}`,
                      );
                      setRefused(sentence);
                      if (sentence === null) close();
                    }}
                  >
                    Switch to {version.firmware}
                  </MainButton>
                </Last>
              </Rows>
            )}
          </DialogButton>
        </Row>
      ))}
      <Row>
        <Field value={name} onChange={setName} style={{ width: 130 }}>
          <Label>Another firmware</Label>
          <Input placeholder="3.0" />
        </Field>
        <Button
          isDisabled={adding === null}
          onPress={() => {
            perform(adding, `keep a map for firmware ${name.trim()}`);
            setName('');
          }}
        >
          Keep a copy for it
        </Button>
      </Row>
      <CopyMap unit={unit} />
    </Part>
  );
}

function CopyMap({ unit }: Props) {
  const show = useShow();
  const others = show.units.filter((u) => u.id !== unit.id);
  const [to, setTo] = useState(others[0]?.id ?? '');
  const [what, setWhat] = useState<'map' | 'slots'>('map');
  const [refused, setRefused] = useState<string | null>(null);
  return (
    <DialogButton
      face={
        <>
          <Copy size={16} aria-hidden /> Copy this map to another unit
        </>
      }
      title={`Copy the map of ${unit.name}`}
      disabled={others.length === 0}
    >
      {(close) => (
        <Rows>
          <Pick label="To" value={to} choices={others} onPick={setTo} />
          <Choices
            label="What is copied"
            value={what}
            onPick={setWhat}
            choices={[
              {
                id: 'map',
                name: 'Address plan, variants, controls, times',
                about: 'The other unit keeps its named slots.',
              },
              {
                id: 'slots',
                name: 'All of that, and the named slots',
                about: 'A slot that it has already gets the name from here.',
              },
            ]}
          />
          <Soft>
            Cables and channel stay its own. What tones say of controls that it loses is taken out, and listed.
          </Soft>
          {refused !== null && <Soft role="alert">{refused}</Soft>}
          <Last>
            <Button onPress={close}>Cancel</Button>
            <MainButton
              onPress={() => {
                const change = copyMap(show, unit.id, to, what === 'slots', newId);
                const name = indexShow(show).units.get(to)?.name ?? '';
                const sentence = takeChange(change, `copy the map of ${unit.name} to ${name}`);
                setRefused(sentence);
                if (sentence === null) close();
              }}
            >
              Copy it
            </MainButton>
          </Last>
        </Rows>
      )}
    </DialogButton>
  );
}
