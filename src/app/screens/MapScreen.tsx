import { Hash } from 'lucide-react';
import { Link, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { slotCount, type UnitAim } from '../../core/addressing';
import { indexShow, type Unit } from '../../core/show';
import { AddUnit } from '../components/AddUnit';
import { Soft } from '../components/controls';
import { UnitBadge } from '../components/UnitBadge';
import { audition } from '../state/desk';
import { useShow } from '../state/store';
import { desk, font } from '../theme/tokens';
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
`;

const Parts = styled.nav`
  display: flex;
  gap: 2px;
  margin-left: auto;
  & > a {
    padding: 7px 12px 9px;
    border-bottom: 3px solid transparent;
    margin-bottom: -1.5px;
    color: ${desk.inkSoft};
    font: 700 15px/1.2 ${font.display};
    text-decoration: none;
    white-space: nowrap;
  }
  & > a:hover {
    color: ${desk.ink};
    background: ${desk.tideWash};
  }
  & > a[aria-current='page'] {
    border-bottom-color: ${desk.lamp};
    color: ${desk.ink};
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

/** One unit's numbers: its slots in its own labelling, variants, controls, and the bytes of each. */
export function MapScreen() {
  const show = useShow();
  const navigate = useNavigate();
  const { unitId, part = '' } = useParams();
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
          <Link
            key={u.id}
            to={`/show/${show.id}/map/${u.id}${part === '' ? '' : `/${part}`}`}
            aria-current={u === unit ? 'page' : undefined}
          >
            <UnitBadge monogram={u.monogram} index={i} />
            {u.name}
          </Link>
        ))}
        <Link to={`/show/${show.id}/house`} style={{ marginTop: 8 }}>
          <Hash size={20} aria-hidden />
          House numbers
        </Link>
        <AddUnit onAdded={open} />
      </Rail>
      <UnitMap key={unit.id} unit={unit} part={part} />
    </Page>
  );
}

const PARTS = [
  ['', 'Presets'],
  ['controls', 'Controls'],
  ['plan', 'Address plan'],
  ['unit', 'Times & habits'],
  ['relays', 'Relay rules'],
] as const;

function UnitMap({ unit, part }: { readonly unit: Unit; readonly part: string }) {
  const show = useShow();
  const send = (aim: UnitAim): void => void audition(unit.id, aim);
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
        <Parts aria-label={`Map of ${unit.name}`}>
          {PARTS.map(([path, name]) => (
            <Link
              key={name}
              to={path === '' ? base : `${base}/${path}`}
              aria-current={path === part ? 'page' : undefined}
            >
              {name}
            </Link>
          ))}
        </Parts>
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
