import { Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { isContinuous, valueRange, type Sender, hasTwoStates, keepsOf } from '../../core/addressing';
import type { Unit } from '../../core/show';
import { pressFoot, touch } from '../state/desk';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { Button, Soft } from '../widgets/controls';

const Board = styled.div`
  display: grid;
  gap: 8px;
  padding: 10px 12px;
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheetDim};
  border: 1.5px solid ${desk.line};
`;

const Keys = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  align-items: center;
  & button {
    min-height: 30px;
    padding: 0 9px;
    font-size: 13px;
  }
`;

const Travel = styled(Slider)`
  display: flex;
  align-items: center;
  gap: 8px;
  width: 190px;
`;

const Track = styled(SliderTrack)`
  position: relative;
  flex: 1;
  height: 22px;
  &::before {
    content: '';
    position: absolute;
    left: 0;
    right: 0;
    top: 9px;
    height: 4px;
    border-radius: 2px;
    background: ${desk.lineStrong};
  }
`;

const Thumb = styled(SliderThumb)`
  top: 50%;
  width: 14px;
  height: 22px;
  border: 1.5px solid ${desk.ink};
  border-radius: 3px 7px 3px 7px;
  background: ${desk.lamp};
`;

/** Stand-ins of the controllers of the rig, to be pressed and moved. */
export function StandInKeys({ only }: { readonly only?: string }) {
  const show = useShow();
  const controllers = show.units.filter((u) => u.profile.senders.length > 0 && (only === undefined || u.id === only));
  if (controllers.length === 0) return <Soft>No controller in the rig. Add one to press its stand-in here.</Soft>;
  return (
    <>
      {controllers.map((unit) => (
        <Board key={unit.id} role="group" aria-label={`Stand-in of ${unit.name}`}>
          <Keys>
            <b>{unit.name}</b>
            {!unit.returns && <Soft>has no cable back to the computer, so nothing arrives</Soft>}
          </Keys>
          <Keys>
            {unit.profile.senders.map((sender) => (
              <SenderKey key={sender.id} unit={unit} sender={sender} />
            ))}
          </Keys>
        </Board>
      ))}
    </>
  );
}

/** One switch, pad or pedal of a controller's stand-in. */
export function SenderKey({ unit, sender }: { readonly unit: Unit; readonly sender: Sender }) {
  const { encoding, id, name } = sender;
  const { low, high } = valueRange(encoding);
  // A foot controller runs the pages that it holds.
  const foot = unit.profile.controller !== null;
  if (isContinuous(encoding)) {
    return (
      <Travel
        aria-label={`${name} of ${unit.name}`}
        minValue={low}
        maxValue={high}
        step={(high - low) / 127}
        defaultValue={low}
        onChange={(value) => {
          const moved = Math.min(high, Math.max(low, [value].flat()[0]!));
          if (!foot) void touch(unit.id, id, moved);
          else void pressFoot(unit.id, { kind: 'pedal', senderId: id, share: (moved - low) / (high - low) });
        }}
      >
        <small>{name}</small>
        <Track>
          <Thumb />
        </Track>
      </Travel>
    );
  }
  const held = hasTwoStates(encoding) && keepsOf(encoding) === 'value';
  return (
    <Button
      aria-label={`${name} of ${unit.name}`}
      onPressStart={() =>
        void (foot ? pressFoot(unit.id, { kind: 'press', senderId: id }) : touch(unit.id, id, held ? 1 : low))
      }
      onPressEnd={() => {
        if (foot) void pressFoot(unit.id, { kind: 'release', senderId: id });
        else if (held) void touch(unit.id, id, 0);
      }}
    >
      {name}
    </Button>
  );
}
