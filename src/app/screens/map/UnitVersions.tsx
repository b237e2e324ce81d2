import { Copy } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { compareProfiles, type Profile } from '../../../core/addressing';
import { addVersion, copyMap, indexShow, switchVersion, type Unit } from '../../../core/show';
import { differenceSentence } from '../../../wording';
import { DialogButton } from '../../widgets/DialogButton';
import { Button, Field, Input, Label, MainButton, Soft } from '../../widgets/controls';
import { Choices } from '../../widgets/Choices';
import { Last, Rows } from '../../widgets/dialogParts';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { newId, perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { takeChange, useProfile } from './useProfile';
import { Part, Row, type Props } from './unitParts';

const Differences = styled.ul`
  display: grid;
  gap: 5px;
  margin: 0;
  padding-left: 20px;
`;

export function Versions({ unit }: Props) {
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
        <VersionRow
          key={version.firmware}
          version={version}
          unit={unit}
          profile={profile}
          refused={refused}
          index={i}
          setRefused={setRefused}
        />
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

interface VersionRowProps {
  readonly version: Profile;
  readonly unit: Unit;
  readonly profile: Profile;
  readonly refused: string | null;
  readonly index: number;
  readonly setRefused: (value: string | null) => void;
}

/** A map for another firmware: compared, gone over to, removed. */
function VersionRow({ version, unit, profile, refused, index, setRefused }: VersionRowProps) {
  const show = useShow();
  return (
    <Row>
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
                    switchVersion(show, unit.id, index),
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
