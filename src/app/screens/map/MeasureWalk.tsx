import { Footprints } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { labelOf, slotMessages, worstOf } from '../../../core/addressing';
import { slotsById, type Slot, type Unit } from '../../../core/show';
import { findGap } from '../../../core/sound';
import type { Ear } from '../../adapters/ear';
import { audition } from '../../state/desk';
import { isStandIn, keepSlotTimes, openEarFor } from '../../state/measuring';
import { DialogButton } from '../../widgets/DialogButton';
import { Button, FormProblem, MainButton, Soft } from '../../widgets/controls';
import { Last, Rows } from '../../widgets/dialogParts';
import { Numbers, type HeardSlot } from './MeasureWalkTable';

/** How often each preset is called. */
const TRIALS = 2;
/** Sound before each call, so that the gap has two ends, and how long is listened after it, in milliseconds. */
const BEFORE = 400;
const AFTER_WORST = 300;

/** Walks through the named presets of a unit and measures how long each takes to load. */
export function MeasureWalk({ unit }: { readonly unit: Unit }) {
  return (
    <DialogButton
      face={
        <>
          <Footprints size={16} aria-hidden /> Walk and measure
        </>
      }
      title={`How long each preset of ${unit.name} takes`}
      width={560}
    >
      {(close) => <WalkForm unit={unit} close={close} />}
    </DialogButton>
  );
}

const pause = (millis: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, millis));

function WalkForm({ unit, close }: { readonly unit: Unit; readonly close: () => void }) {
  const slots = [...slotsById(unit).values()].filter((s) => slotMessages(unit.profile.plan, 1, s.index, null) !== null);
  const [heard, setHeard] = useState<readonly HeardSlot[]>([]);
  const [running, setRunning] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const goOn = useRef(false);
  useEffect(
    () => () => {
      goOn.current = false;
    },
    [],
  );
  const next = heard.length;
  const walk = async (): Promise<void> => {
    let ear: Ear;
    const at = { slot: slots[next]! };
    const time = () => at.slot.recall ?? unit.profile.times.recall;
    try {
      ear = await openEarFor(unit, time);
    } catch {
      setTrouble('There is no sound input, or the browser does not let it be used.');
      return;
    }
    setTrouble(null);
    setRunning(true);
    goOn.current = true;
    for (let i = next; i < slots.length && goOn.current; i++) {
      const now = (at.slot = slots[i]!);
      const trials: (number | null)[] = [];
      for (let n = 0; n < TRIALS && goOn.current; n++) {
        trials.push(await hear(unit, ear, now, slots[(i + 1) % slots.length]!));
      }
      if (trials.length === TRIALS) setHeard((list) => [...list, { slot: now, trials }]);
    }
    ear.close();
    setRunning(false);
  };
  const good = heard.filter((h) => h.trials.some((t) => t !== null));
  return (
    <Rows>
      <Soft>
        {isStandIn(unit)
          ? 'A stand-in answers for this unit: it sounds as the map says, a little different each time. What is heard stays a guess.'
          : 'Hold a steady note while each preset is called: the gap in it is how long the preset takes.'}
      </Soft>
      {slots.length === 0 && <FormProblem>{unit.name} has no presets with names yet.</FormProblem>}
      {trouble !== null && <FormProblem>{trouble}</FormProblem>}
      <p role="status" style={{ margin: 0, fontWeight: 700 }}>
        {heard.length} of {slots.length} presets
        {running && slots[next] ? `: ${labelOf(unit.profile.plan, slots[next].index)} ${slots[next].name}` : ''}
      </p>
      {heard.length > 0 && <Numbers unit={unit} heard={heard} />}
      <Last style={{ flexWrap: 'wrap' }}>
        <Button onPress={close}>Cancel</Button>
        {running ? (
          <Button
            onPress={() => {
              goOn.current = false;
            }}
          >
            Take a break
          </Button>
        ) : (
          <Button isDisabled={slots.length < 2 || next >= slots.length} onPress={() => void walk()}>
            {next === 0 ? 'Start' : 'Go on'}
          </Button>
        )}
        <MainButton
          isDisabled={running || good.length === 0}
          onPress={() => {
            const trials = good.map((h) => ({ index: h.slot.index, trials: h.trials.filter((t) => t !== null) }));
            keepSlotTimes(unit, trials);
            close();
          }}
        >
          Add {good.length} to the map
        </MainButton>
      </Last>
    </Rows>
  );
}

/** Calls a preset from another one, and finds the end of the gap; null where there is none. */
async function hear(unit: Unit, ear: Ear, slot: Slot, other: Slot): Promise<number | null> {
  const wait = worstOf(unit.profile.times.recall) + AFTER_WORST;
  await audition(unit.id, { slot: other.index, controls: {} });
  await pause(wait);
  const sent = performance.now();
  await audition(unit.id, { slot: slot.index, controls: {} });
  await pause(wait);
  const recording = ear.since(sent - BEFORE);
  const gap = recording && findGap(recording.samples, recording.rate);
  return gap ? Math.max(0, gap.to * 1000 - BEFORE) : null;
}
