import { useCallback } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { slotCount } from '../../core/addressing';
import type { UnitAim } from '../../core/rig';
import { indexShow, type Unit } from '../../core/show';
import { AddUnit } from '../features/AddUnit';
import { Soft } from '../widgets/controls';
import { PartLinks } from '../widgets/PartLinks';
import { UnitRail } from '../features/UnitRail';
import { audition } from '../state/desk';
import { useShow } from '../state/store';
import { desk, font } from '../theme/tokens';
import { narrow, stacked } from '../theme/narrow';
import { ControlsPart } from './map/ControlsPart';
import { PlanEditor } from './map/PlanEditor';
import { RelaySheet } from './map/RelaySheet';
import { SlotsPart } from './map/SlotsPart';
import { UnitSheet } from './map/UnitSheet';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: 166px minmax(0, 1fr);
  @media (max-width: 1150px) {
    grid-template-columns: 132px minmax(0, 1fr);
  }
  ${stacked}
`;

const Body = styled.div<{ $wide: boolean }>`
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) ${(p) => (p.$wide ? '0' : '312px')};
  min-height: 0;
  min-width: 0;
  & > header {
    grid-column: 1 / -1;
  }
  @media (max-width: 1150px) {
    grid-template-columns: minmax(0, 1fr) ${(p) => (p.$wide ? '0' : '276px')};
  }
  ${narrow} {
    display: block;
    & > * {
      border-left: 0;
    }
  }
`;

const Head = styled.header`
  display: flex;
  align-items: end;
  gap: 18px;
  padding: 12px 20px 0;
  margin-bottom: 10px;
  border-bottom: 1.5px solid ${desk.line};
  & h1 {
    font-size: 26px;
  }
  & > div {
    min-width: 0;
    padding-bottom: 8px;
  }
  ${narrow} {
    flex-wrap: wrap;
    gap: 4px 12px;
    padding: 8px 12px 0;
  }
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

/** What the address of a unit that was just added carries. */
const JUST_ADDED = { added: true };

/** One unit's numbers: its slots in its own labelling, variants, controls, and the bytes of each. */
export function MapScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const { unitId, part = '' } = useParams();
  const unit = indexShow(show).units.get(unitId ?? '') ?? show.units[0];
  // The keyboard goes to the first preset of a unit that was just added.
  const open = (id: string): void => void navigate(`/show/${show.id}/map/${id}`, { state: JUST_ADDED });
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
      <UnitRail current={unit.id} part={part} onAdded={open} />
      <UnitMap key={unit.id} unit={unit} part={part} />
    </Page>
  );
}

const PARTS = [
  ['', 'Presets'],
  ['controls', 'Controls'],
  ['plan', 'Address plan'],
  ['unit', 'Timing and behaviour'],
  ['relays', 'Relay rules'],
] as const;

function UnitMap({ unit, part }: { readonly unit: Unit; readonly part: string }) {
  const show = useShow();
  const send = useCallback((aim: UnitAim): void => void audition(unit.id, aim), [unit.id]);
  const base = `/show/${show.id}/map/${unit.id}`;
  const wide = part === 'unit' || part === 'relays';
  return (
    <Body $wide={wide}>
      <Head>
        <div>
          <h1>{unit.name}</h1>
          <Soft>
            {slotCount(unit.profile.plan)} slots, {unit.slots.length} named · {wiring(unit, show.ports)}
          </Soft>
        </div>
        <PartLinks label={`Map of ${unit.name}`} base={base} parts={PARTS} current={part} />
      </Head>
      {part === 'controls' ? (
        <ControlsPart unit={unit} onSend={send} />
      ) : part === 'plan' ? (
        <PlanEditor unit={unit} />
      ) : part === 'unit' ? (
        <UnitSheet unit={unit} />
      ) : part === 'relays' ? (
        <RelaySheet unit={unit} />
      ) : (
        <SlotsPart unit={unit} onSend={send} />
      )}
    </Body>
  );
}

function wiring(unit: Unit, ports: ReturnType<typeof useShow>['ports']): string {
  const { input } = unit;
  if (!input) return 'on no port';
  if (input.from === 'unit') return `behind another unit, channel ${unit.channel}`;
  const port = ports.find((p) => p.id === input.portId);
  return `${port?.name ?? 'no port'} (${port?.cable === 'usb' ? 'USB' : '5-pin'}), channel ${unit.channel}`;
}
