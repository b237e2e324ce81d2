import { ChevronDown, ChevronUp } from 'lucide-react';
import { Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { labelOf, type Profile, type Controller } from '../../core/addressing';
import type { Unit } from '../../core/show';
import { pressFoot } from '../state/desk';
import { useNews } from '../state/news';
import { stage, font } from '../theme/tokens';
import type { Floor } from '../../playback';

const Board = styled.section`
  display: grid;
  gap: 10px;
  padding: 12px 14px 14px;
  border-radius: 6px 22px 6px 22px;
  background: ${stage.ground};
  color: ${stage.text};
  touch-action: manipulation;
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 34px;
  & > b {
    font: 700 17px/1.2 ${font.display};
  }
  & > span {
    color: ${stage.soft};
  }
`;

const Keys = styled.div<{ $columns: number }>`
  display: grid;
  grid-template-columns: repeat(${({ $columns }) => $columns}, minmax(0, 1fr));
  gap: 8px;
`;

const Key = styled.button<{ $lit: boolean }>`
  position: relative;
  min-height: 64px;
  padding: 8px 6px 6px;
  border: 1.5px solid ${({ $lit }) => ($lit ? stage.lamp : stage.line)};
  border-radius: 5px 16px 5px 16px;
  background: ${stage.raised};
  color: ${stage.text};
  font: 600 14px/1.15 ${font.text};
  cursor: pointer;
  user-select: none;
  -webkit-user-select: none;
  &::before {
    content: '';
    position: absolute;
    top: 5px;
    left: 50%;
    width: 26px;
    margin-left: -13px;
    height: 5px;
    border-radius: 3px;
    background: ${({ $lit }) => ($lit ? stage.lamp : stage.line)};
  }
  &:active {
    background: ${stage.line};
  }
  &:focus-visible {
    outline: 3px solid ${stage.lamp};
    outline-offset: 2px;
  }
`;

const Step = styled.button`
  display: inline-grid;
  place-items: center;
  width: 44px;
  height: 34px;
  border: 1.5px solid ${stage.line};
  border-radius: 4px 12px 4px 12px;
  background: ${stage.raised};
  color: ${stage.text};
  cursor: pointer;
`;

const Travel = styled(Slider)`
  display: flex;
  align-items: center;
  gap: 10px;
  & > span {
    min-width: 64px;
  }
`;

const Track = styled(SliderTrack)`
  position: relative;
  flex: 1;
  height: 30px;
  &::before {
    content: '';
    position: absolute;
    inset: 13px 0;
    border-radius: 2px;
    background: ${stage.line};
  }
`;

const Thumb = styled(SliderThumb)`
  top: 50%;
  width: 22px;
  height: 30px;
  border: 1.5px solid ${stage.text};
  border-radius: 3px 9px 3px 9px;
  background: ${stage.lamp};
`;

/** The stand-in of a foot controller, pressed by mouse, keys and touch: it runs the pages that it holds. */
export function StandInFloor({ unit }: { readonly unit: Unit }) {
  const floor = useNews((s) => s.news.floors.find((f) => f.unitId === unit.id));
  const { profile } = unit;
  const controller = profile.controller!;
  const columns = Math.max(...controller.switches.map((s) => s.column)) + 1;
  const lit = new Set(floor?.lit ?? []);
  const press = (senderId: string): void => void pressFoot(unit.id, { kind: 'press', senderId });
  const release = (senderId: string): void => void pressFoot(unit.id, { kind: 'release', senderId });
  const nameOf = (id: string): string => profile.senders.find((s) => s.id === id)?.name ?? id;
  return (
    <Board aria-label={`Stand-in of ${unit.name}`}>
      <FloorHead unit={unit} floor={floor} profile={profile} controller={controller} />
      <Keys $columns={columns}>
        {controller.switches.map(({ id, row, column }, place) => {
          const shown = floor?.names[place] ?? '';
          return (
            <FloorKey
              key={id}
              lit={lit}
              place={place}
              row={row}
              column={column}
              nameOf={nameOf}
              id={id}
              unit={unit}
              shown={shown}
              press={press}
              release={release}
              floor={floor}
            />
          );
        })}
      </Keys>
      {controller.pedals.map((id) => (
        <Travel
          key={id}
          aria-label={`${nameOf(id)} of ${unit.name}`}
          minValue={0}
          maxValue={127}
          defaultValue={0}
          onChange={(value) =>
            void pressFoot(unit.id, { kind: 'pedal', senderId: id, share: Math.min(1, [value].flat()[0]! / 127) })
          }
        >
          <span>{nameOf(id)}</span>
          <Track>
            <Thumb />
          </Track>
        </Travel>
      ))}
    </Board>
  );
}

interface FloorHeadProps {
  readonly unit: Unit;
  readonly floor: Floor | undefined;
  readonly profile: Profile;
  readonly controller: Controller;
}

/** The name of the controller, its display, and keys that step through its pages. */
function FloorHead({ unit, floor, profile, controller }: FloorHeadProps) {
  return (
    <Head>
      <b>{unit.name}</b>
      <span role="status" aria-label="Its display">
        {floor?.programmed === true
          ? `${labelOf(profile.plan, floor.page)} ${floor.pageName}`
          : 'nothing programmed: each switch sends what it came with'}
      </span>
      {controller.stepsPages && floor?.programmed === true && (
        <span style={{ marginLeft: 'auto', display: 'flex', gap: 6 }}>
          <Step aria-label="Page down" onClick={() => void pressFoot(unit.id, { kind: 'step', by: -1 })}>
            <ChevronDown size={18} aria-hidden />
          </Step>
          <Step aria-label="Page up" onClick={() => void pressFoot(unit.id, { kind: 'step', by: 1 })}>
            <ChevronUp size={18} aria-hidden />
          </Step>
        </span>
      )}
    </Head>
  );
}

interface FloorKeyProps {
  readonly lit: Set<number>;
  readonly place: number;
  readonly row: number;
  readonly column: number;
  readonly nameOf: (id: string) => string;
  readonly id: string;
  readonly unit: Unit;
  readonly shown: string;
  readonly press: (senderId: string) => void;
  readonly release: (senderId: string) => void;
  readonly floor: Floor | undefined;
}

/** A switch of the floor: its light, its name and its press. */
function FloorKey({ lit, place, row, column, nameOf, id, unit, shown, press, release, floor }: FloorKeyProps) {
  return (
    <Key
      type="button"
      $lit={lit.has(place)}
      style={{ gridRow: row + 1, gridColumn: column + 1 }}
      aria-label={`${nameOf(id)} of ${unit.name}${shown === '' ? '' : `: ${shown}`}`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        press(id);
      }}
      onPointerUp={() => release(id)}
      onPointerCancel={() => release(id)}
      onKeyDown={(e) => {
        if ((e.key !== ' ' && e.key !== 'Enter') || e.repeat) return;
        e.preventDefault();
        press(id);
      }}
      onKeyUp={(e) => (e.key === ' ' || e.key === 'Enter') && release(id)}
    >
      {floor?.programmed === true ? shown : nameOf(id)}
    </Key>
  );
}
