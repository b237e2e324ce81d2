import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { indexOfLabel, labelOf, slotCount, type UnitAim } from '../../core/addressing';
import { addTone, indexShow, nameSlot, newPart, newTone, slotAt, type Unit } from '../../core/show';
import { Find, type Found } from '../components/Find';
import { Soft } from '../components/controls';
import { UnitBadge } from '../components/UnitBadge';
import { audition, newId, perform } from '../state/desk';
import { useApp, useShow } from '../state/store';
import { desk, font } from '../theme/tokens';
import { AddUnit } from './map/AddUnit';
import { ControlList } from './map/ControlList';
import { SlotCard } from './map/SlotCard';
import { SlotGrid } from './map/SlotGrid';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: 170px minmax(0, 1fr) 300px;
  @media (max-width: 1150px) {
    grid-template-columns: 132px minmax(0, 1fr) 266px;
  }
`;

const Rail = styled.nav`
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: 14px 8px;
  border-right: 1.5px solid ${desk.line};
  overflow: auto;
  & > a {
    display: flex;
    align-items: center;
    gap: 9px;
    padding: 7px 8px;
    border-radius: 3px 10px 3px 10px;
    color: ${desk.ink};
    font-weight: 600;
    text-decoration: none;
    line-height: 1.2;
  }
  @media (max-width: 1150px) {
    & > a {
      flex-direction: column;
      align-items: flex-start;
      gap: 3px;
    }
  }
  & > a:hover {
    background: ${desk.tideWash};
  }
  & > a[aria-current='page'] {
    background: ${desk.sheet};
    box-shadow: inset 0 0 0 1.5px ${desk.ink};
  }
  & > button {
    margin-top: 10px;
  }
`;

const Middle = styled.section`
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  min-height: 0;
`;

const Head = styled.div`
  display: flex;
  align-items: end;
  gap: 16px;
  padding: 14px 20px 10px;
  & h1 {
    font-size: 28px;
  }
  & > div:first-child {
    flex: 1;
    min-width: 0;
  }
  & > div:last-child {
    width: 218px;
  }
`;

const Hint = styled.p`
  padding: 0 20px 8px;
  font-size: 13px;
  color: ${desk.inkSoft};
`;

const Right = styled.div`
  border-left: 1.5px solid ${desk.ink};
  background: ${desk.sheet};
  overflow: auto;
  padding-bottom: 16px;
`;

const Nothing = styled.div`
  display: grid;
  place-content: center;
  justify-items: start;
  gap: 14px;
  height: 100%;
  padding: 30px;
  & h1 {
    font: 800 34px/1.1 ${font.display};
  }
`;

/** One unit's numbers: its slots in its own labelling, variants, controls, and the bytes of each. */
export function MapScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const { unitId } = useParams();
  const unit = indexShow(show).units.get(unitId ?? '') ?? show.units[0];
  const open = (id: string): void => void navigate(`/show/${show.id}/map/${id}`);
  if (!unit) {
    return (
      <Nothing>
        <h1>No units yet</h1>
        <p>The map starts with a unit: what it is, which port it hangs on, which channel it listens to.</p>
        <AddUnit onAdded={open} />
      </Nothing>
    );
  }
  return (
    <Page>
      <Rail aria-label="Units">
        {show.units.map((u, i) => (
          <Link key={u.id} to={`/show/${show.id}/map/${u.id}`} aria-current={u === unit ? 'page' : undefined}>
            <UnitBadge monogram={u.monogram} index={i} />
            {u.name}
          </Link>
        ))}
        <AddUnit onAdded={open} />
      </Rail>
      <UnitMap key={unit.id} unit={unit} />
    </Page>
  );
}

function UnitMap({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const navigate = useNavigate();
  const counting = useApp((s) => s.counting);
  const on = useApp((s) => s.news.rig[unit.id]?.slot ?? null);
  const [index, setIndex] = useState(unit.slots[0]?.index ?? 0);
  const [goTo, setGoTo] = useState('');
  const slot = slotAt(show, unit.id, index);
  const { plan } = unit.profile;
  const [summons, setSummons] = useState(0);
  const visit = (i: number): void => {
    setIndex(i);
    setGoTo('');
    setSummons(summons + 1);
  };

  const send = (aim: UnitAim): void => void audition(unit.id, aim);
  const sendSlot = (i: number): void => {
    send({ slot: i, controls: {} });
  };
  const name = (i: number, text: string): void => {
    perform(nameSlot(show, unit.id, i, text, newId()), `name ${labelOf(plan, i)}`);
  };
  const makeTone = (): void => {
    if (!slot) return;
    const id = newId();
    const part = newPart(unit.id, { slotId: slot.id });
    perform(addTone(show, newTone(id, slot.name || labelOf(plan, index), [part])), `make a tone of ${slot.name}`);
    void navigate(`/show/${show.id}/tones/${id}`);
  };
  return (
    <>
      <Middle>
        <Head>
          <div>
            <h1>{unit.name}</h1>
            <Soft>
              {slotCount(plan)} slots, {unit.slots.length} named · {wiring(unit, show.ports)}
            </Soft>
          </div>
          <div>
            <Find
              label="Go to a slot"
              placeholder="label or part of a name"
              text={goTo}
              onText={setGoTo}
              search={(text) => findSlots(unit, text)}
              onPick={(id) => visit(Number(id))}
              onEnter={() => {
                const [first] = findSlots(unit, goTo);
                if (first && goTo.trim() !== '') visit(Number(first.id));
              }}
            />
          </div>
        </Head>
        <Hint>
          Arrows move · <kbd>Enter</kbd> or typing names a slot and goes on to the next · <kbd>Space</kbd> sends it
        </Hint>
        <SlotGrid
          unit={unit}
          counting={counting}
          selected={index}
          on={on}
          onSelect={setIndex}
          summons={summons}
          onName={name}
          onSend={sendSlot}
        />
      </Middle>
      <Right>
        <SlotCard unit={unit} index={index} slot={slot} onSend={() => sendSlot(index)} onTone={makeTone} />
        <ControlList unit={unit} counting={counting} onSend={send} />
      </Right>
    </>
  );
}

function wiring(unit: Unit, ports: ReturnType<typeof useShow>['ports']): string {
  const { input } = unit;
  if (!input) return 'on no port';
  if (input.from === 'unit') return `behind another unit, channel ${unit.channel}`;
  const port = ports.find((p) => p.id === input.portId);
  return `${port?.name ?? 'no port'} (${port?.cable === 'usb' ? 'USB' : '5-pin'}), channel ${unit.channel}`;
}

const FOUND_LIMIT = 12;

/** Slots for a label as the unit writes it, or a part of a name. */
function findSlots(unit: Unit, text: string): Found[] {
  const { plan } = unit.profile;
  const wanted = text.trim().toLowerCase();
  const exact = indexOfLabel(plan, wanted);
  const found = unit.slots
    .filter((s) => s.index !== exact && s.name.toLowerCase().includes(wanted))
    .slice(0, FOUND_LIMIT);
  const list = found.map((s) => ({ id: String(s.index), name: s.name, aside: labelOf(plan, s.index) }));
  if (exact === undefined) return list;
  const name = unit.slots.find((s) => s.index === exact)?.name || 'no name yet';
  return [{ id: String(exact), name, aside: labelOf(plan, exact) }, ...list];
}
