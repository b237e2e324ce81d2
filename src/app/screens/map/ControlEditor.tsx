import { AudioLines, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { encodingClaims, fitsRange, valueRange, type Control } from '../../../core/addressing';
import type { UnitAim } from '../../../core/rig';
import { checkRig, type Finding } from '../../../core/checks';
import { freeControlPair, fitText, renumbered, withControl, withoutControl, type Unit } from '../../../core/show';
import { tonightOf } from '../../../core/tonight';
import { findingSentence, fixWords } from '../../../wording';
import { Button, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { EncodingEditor } from './EncodingEditor';
import { Learn } from './Learn';
import { Teach } from './Teach';
import { useProfile } from './useProfile';

export const EditorBox = styled.section`
  display: grid;
  gap: 12px;
  padding: 16px 18px;
`;

export const Fault = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  padding: 7px 10px;
  border-left: 4px solid ${desk.rust};
  background: ${desk.rustWash};
  font-size: 13px;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

const NONE = 'none';

interface Props {
  readonly unit: Unit;
  readonly control: Control;
  readonly onSend: (aim: UnitAim) => void;
}

/** One control: what the unit calls it, how it is sent, and what follows from that. */
export function ControlEditor({ unit, control, onSend }: Props) {
  const show = useShow();
  const change = useProfile(unit);
  const put = (next: Control, label: string): string | null => change(withControl(unit.profile, next), label);
  const findings = checkRig(tonightOf(show)).filter(
    (f) => f.place.in === 'unit' && f.place.unitId === unit.id && f.place.controlId === control.id,
  );
  const { low } = valueRange(control.encoding);
  const chooseHouse = (id: string): void => {
    const house = show.house.find((h) => h.id === id);
    put(
      { ...(house ? renumbered(control, house.number) : control), houseId: house?.id ?? null },
      'set a shared control number',
    );
  };
  const followsHouse = encodingClaims(control.encoding)[0]?.on === 'control';
  return (
    <EditorBox aria-label={`Control ${control.name}`}>
      <DraftField
        label="What the unit calls it"
        value={control.name}
        commit={(name) =>
          name.trim() === '' ? 'a name' : put({ ...control, name: fitText(name, 'name') }, 'rename a control')
        }
      />
      {findings.map((f) => (
        <FindingLine key={f.code} finding={f} />
      ))}
      <EncodingEditor
        key={control.id}
        encoding={control.encoding}
        channel={unit.channel}
        pair={freeControlPair(unit, control.id)}
        options={control.options}
        onOptions={(options) => void put({ ...control, options }, 'name an option')}
        onEncoding={(encoding) =>
          put({ ...control, encoding, rest: keepRest(control.rest, encoding) }, `change how ${control.name} is sent`)
        }
      />
      <RestField control={control} put={put} />
      {followsHouse && <FollowsPick control={control} chooseHouse={chooseHouse} />}
      <Row>
        <Button onPress={() => onSend({ controls: { [control.id]: control.rest ?? low } })}>
          <AudioLines size={16} aria-hidden /> Send the value at rest
        </Button>
        <Learn unit={unit} onTake={(encoding) => put({ ...control, encoding, rest: null }, `learn ${control.name}`)} />
        <Teach unit={unit} control={control} />
        <Button onPress={() => void change(withoutControl(unit.profile, control.id), `remove ${control.name}`)}>
          <Trash2 size={16} aria-hidden /> Remove
        </Button>
      </Row>
      <Soft style={{ fontSize: 13 }}>Changes apply as you type; Undo takes them back.</Soft>
    </EditorBox>
  );
}

interface FollowsPickProps {
  readonly control: Control;
  readonly chooseHouse: (id: string) => void;
}

/** The shared control number that the control follows. */
function FollowsPick({ control, chooseHouse }: FollowsPickProps) {
  const show = useShow();
  return (
    <Pick
      label="Shared control number that it follows"
      value={control.houseId ?? NONE}
      onPick={chooseHouse}
      choices={[
        { id: NONE, name: 'none' },
        ...show.house.map((h) => ({ id: h.id, name: `${h.name}, control ${h.number}` })),
      ]}
    />
  );
}

interface RestFieldProps {
  readonly control: Control;
  readonly put: (next: Control, label: string) => string | null;
}

/** What the control is on when nobody wants anything of it. */
function RestField({ control, put }: RestFieldProps) {
  return (
    <DraftField
      label="Value at rest (empty: none)"
      value={control.rest === null ? '' : String(control.rest)}
      numeric
      commit={(text) => {
        const rest = text.trim() === '' ? null : Number(text);
        if (rest !== null && !fitsRange(control.encoding, rest)) return 'a value of this control';
        return put({ ...control, rest }, `set ${control.name} at rest`);
      }}
    />
  );
}

const keepRest = (rest: number | null, encoding: Control['encoding']): number | null =>
  rest !== null && fitsRange(encoding, rest) ? rest : null;

/** A finding at its place, with the button that mends it. */
export function FindingLine({ finding }: { readonly finding: Finding }) {
  return (
    <Fault role="note">
      <span>{findingSentence(finding)}</span>
      {finding.fix && <Button onPress={() => perform(finding.fix, fixWords(finding))}>{fixWords(finding)}</Button>}
    </Fault>
  );
}
