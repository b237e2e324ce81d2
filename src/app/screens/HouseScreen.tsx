import { Plus, Trash2 } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { type Control, controlNumberOf } from '../../core/addressing';
import { checkRig, type Finding } from '../../core/checks';
import {
  addHouseNumber,
  changeProfile,
  removeHouseNumber,
  renumbered,
  setHouseNumber,
  type HouseNumber,
  type Unit,
  freeHouseName,
  freeHouseNumber,
} from '../../core/show';
import { tonightOf } from '../../core/tonight';
import { findingSentence, sentence } from '../../wording';
import { Unseen } from '../widgets/shellParts';
import { Button, MainButton, SignButton, Soft } from '../widgets/controls';
import { DraftField } from '../widgets/DraftField';
import { LanternMark } from '../widgets/LanternMark';
import { Pick } from '../widgets/Pick';
import { UnitBadge } from '../widgets/UnitBadge';
import { UnitRail } from '../features/UnitRail';
import { newId, perform, say } from '../state/desk';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { stacked } from '../theme/narrow';

const Frame = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: 166px minmax(0, 1fr);
  ${stacked}
`;

const Page = styled.div`
  overflow: auto;
  padding: 16px 24px 30px;
  display: grid;
  gap: 14px;
  align-content: start;
  & h1 {
    font-size: 28px;
  }
`;

const Sheet = styled.table`
  border-collapse: separate;
  border-spacing: 0;
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 18px 4px 18px;
  & th,
  & td {
    padding: 8px 10px;
    text-align: left;
    vertical-align: top;
    border-bottom: 1px solid ${desk.line};
  }
  & thead th {
    border-bottom: 1.5px solid ${desk.ink};
    vertical-align: bottom;
    font-size: 13px;
  }
  & tbody tr:last-child td {
    border-bottom: 0;
  }
`;

const Bad = styled.span`
  display: flex;
  align-items: center;
  gap: 4px;
  margin-top: 3px;
  font-size: 12.5px;
  font-weight: 600;
  color: ${desk.rust};
`;

const NONE = 'none';

/** One function, one number, on every unit where the number can be chosen. */
export function HouseScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const units = show.units.filter((u) => u.profile.controls.some(renumberable));
  const number = freeHouseNumber(show.house);
  const more = addHouseNumber(show, { id: newId(), name: freeHouseName(show.house), number });
  const add = (): void => void perform(more, `add the shared control number ${number}`);
  return (
    <Frame>
      <UnitRail current={null} part="" onAdded={(id) => void navigate(`/show/${show.id}/map/${id}`)} />
      <Page>
        <header>
          <h1>Shared control numbers</h1>
          <Soft>
            One function has one control number on every unit where it can be chosen. Change it here, and it changes
            everywhere.
          </Soft>
        </header>
        {show.house.length === 0 ? (
          <div>
            <MainButton onPress={add}>Add the first shared control number</MainButton>
          </div>
        ) : (
          <>
            <div style={{ overflowX: 'auto' }}>
              <Sheet aria-label="Shared control numbers">
                <HouseHead units={units} />
                <tbody>
                  {show.house.map((house) => (
                    <HouseRow key={house.id} house={house} units={units} />
                  ))}
                </tbody>
              </Sheet>
            </div>
            <div>
              <Button onPress={add} isDisabled={more === null}>
                <Plus size={15} aria-hidden /> Add a shared control number
              </Button>
            </div>
          </>
        )}
      </Page>
    </Frame>
  );
}

function HouseHead({ units }: { readonly units: Unit[] }) {
  const show = useShow();
  return (
    <thead>
      <tr>
        <th scope="col">Function</th>
        <th scope="col">Control</th>
        {units.map((u) => (
          <th key={u.id} scope="col">
            <Link to={`/show/${show.id}/map/${u.id}/controls`}>
              <UnitBadge monogram={u.monogram} index={show.units.indexOf(u)} size={24} />
              {u.name}
            </Link>
          </th>
        ))}
        <th scope="col">
          <Unseen>Remove</Unseen>
        </th>
      </tr>
    </thead>
  );
}

const renumberable = ({ encoding }: Control): boolean => 'number' in encoding && controlNumberOf(encoding) !== null;

function HouseRow({ house, units }: { readonly house: HouseNumber; readonly units: readonly Unit[] }) {
  const show = useShow();
  const set = (part: Partial<HouseNumber>, expected: string): string | null => {
    const edit = setHouseNumber(show, house.id, { ...house, ...part });
    if (!edit) return expected;
    perform(edit, `change the shared control number of ${house.name}`);
    return null;
  };
  return (
    <tr>
      <td style={{ minWidth: 150 }}>
        <DraftField label="Function" value={house.name} commit={(name) => set({ name }, 'a name')} />
      </td>
      <td style={{ width: 84 }}>
        <DraftField
          label="Number"
          value={String(house.number)}
          numeric
          commit={(text) =>
            /^\d{1,3}$/.test(text.trim()) ? set({ number: Number(text) }, '0 to 127') : 'a whole number from 0 to 127'
          }
        />
      </td>
      {units.map((unit) => (
        <HouseCell key={unit.id} house={house} unit={unit} />
      ))}
      <td>
        <SignButton
          aria-label={`Remove the shared control number of ${house.name}`}
          onPress={() =>
            perform(removeHouseNumber(show, house.id), `remove the shared control number of ${house.name}`)
          }
        >
          <Trash2 size={16} />
        </SignButton>
      </td>
    </tr>
  );
}

const twoOrOther = (f: Finding): string =>
  f.code === 'map.two-on-one'
    ? `${f.data.number} is taken`
    : f.code === 'map.house-differs'
      ? `is on ${f.data.number}`
      : '';

/** Which control of a unit follows a shared control number, and whether its number is free there. */
function HouseCell({ house, unit }: { readonly house: HouseNumber; readonly unit: Unit }) {
  const show = useShow();
  const { profile } = unit;
  const following = profile.controls.find((c) => c.houseId === house.id);
  const findings = checkRig(tonightOf(show)).filter(
    (f) =>
      f.place.in === 'unit' &&
      f.place.unitId === unit.id &&
      (f.code === 'map.house-differs' || f.code === 'map.two-on-one') &&
      following !== undefined &&
      (f.place.controlId === following.id ||
        (f.code === 'map.two-on-one' && (f.data.first === following.name || f.data.second === following.name))),
  );
  const follow = (id: string): void => {
    const controls = profile.controls.map((c): Control => {
      if (c.id === id) return { ...renumbered(c, house.number), houseId: house.id };
      return c.houseId === house.id ? { ...c, houseId: null } : c;
    });
    const change = changeProfile(show, unit.id, { ...profile, controls });
    if (change.ok) perform(change.edit, `let ${unit.name} follow ${house.name}`);
    else say(change.problems.map(sentence).join(' '));
  };
  return (
    <td>
      <Pick
        label={`${house.name} on ${unit.name}`}
        hideLabel
        width="124px"
        value={following?.id ?? NONE}
        onPick={follow}
        choices={[
          { id: NONE, name: '–' },
          ...profile.controls.filter(renumberable).map((c) => ({ id: c.id, name: c.name })),
        ]}
      />
      {findings.map((f) => (
        <Bad key={f.code} title={findingSentence(f)}>
          <LanternMark mark="cracked" size={17} />
          {twoOrOther(f)}
        </Bad>
      ))}
    </td>
  );
}
