import { Timer } from 'lucide-react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { Unit } from '../../../core/show';
import { DialogButton } from '../../widgets/DialogButton';
import { Button, FormProblem, MainButton, Soft } from '../../widgets/controls';
import { Last, Rows } from '../../widgets/dialogParts';
import { Choices } from '../../widgets/Choices';
import { desk, font } from '../../theme/tokens';
import { BEEPS, TAKES, twoAims, useMeasure, type Measured } from './useMeasure';
import { useProfile } from './useProfile';
import type { TakenTime } from '../../../core/sound';
import { timeText, type Profile, type Variants } from '../../../core/addressing';
import { heardTime } from '../../state/measuring';

const Pad = styled.button`
  min-height: 130px;
  border: 2px solid ${desk.ink};
  border-radius: 6px 30px 6px 30px;
  background: ${desk.lampWash};
  color: ${desk.ink};
  font: 800 24px/1.2 ${font.display};
  cursor: pointer;
  &:active {
    background: ${desk.lamp};
    color: ${desk.onLamp};
  }
`;

const Figure = styled.p`
  margin: 0;
  font: 800 40px/1.1 ${font.display};
  & small {
    font: 600 15px/1.3 ${font.text};
    color: ${desk.inkSoft};
  }
`;

/** Finds out how long a unit takes, for those whose maker does not say. */
export function MeasureTimes({ unit }: { readonly unit: Unit }) {
  return (
    <DialogButton
      face={
        <>
          <Timer size={16} aria-hidden /> Measure them
        </>
      }
      title={`How long ${unit.name} takes`}
      width={520}
    >
      {(close) => <MeasureForm unit={unit} close={close} />}
    </DialogButton>
  );
}

function MeasureForm({ unit, close }: { readonly unit: Unit; readonly close: () => void }) {
  const change = useProfile(unit);
  const [what, setWhat] = useState<Measured>('recall');
  const [refused, setRefused] = useState<string | null>(null);
  const { phase, taken, result, trouble, start, press, listen } = useMeasure(unit);
  const { variants } = unit.profile;
  useEffect(() => {
    if (phase !== 'beeps' && phase !== 'changes') return undefined;
    const onKey = (event: KeyboardEvent): void => {
      if (event.code !== 'Space' || event.repeat) return;
      event.preventDefault();
      press();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });
  if (phase === 'beeps' || phase === 'changes') {
    return <Listening phase={phase} unit={unit} press={press} taken={taken} />;
  }
  return (
    <Rows>
      <WhatMeasured what={what} setWhat={setWhat} variants={variants} />
      {!twoAims(unit, what) && (
        <FormProblem>{unit.name} has nothing to go back and forth between for that.</FormProblem>
      )}
      {phase === 'listening' && <Soft role="status">Listening: {taken} of 5. Hold a steady note.</Soft>}
      {trouble !== null && <FormProblem>{trouble}</FormProblem>}
      {phase === 'done' &&
        (result ? (
          <Figure role="status">
            {result.millis} ms{' '}
            <small>
              give or take {result.spread}; the map says {timeText(unit.profile.times[what])}
            </small>
          </Figure>
        ) : (
          <FormProblem>That was too few to tell. Try it again.</FormProblem>
        ))}
      {refused !== null && <FormProblem>{refused}</FormProblem>}
      <MeasureActs
        close={close}
        phase={phase}
        unit={unit}
        what={what}
        listen={listen}
        result={result}
        change={change}
        setRefused={setRefused}
        start={start}
      />
    </Rows>
  );
}

interface WhatMeasuredProps {
  readonly what: Measured;
  readonly setWhat: (value: Measured) => void;
  readonly variants: Variants | null;
}

/** Which time is measured. */
function WhatMeasured({ what, setWhat, variants }: WhatMeasuredProps) {
  return (
    <Choices
      label="What is measured"
      value={what}
      onPick={setWhat}
      choices={[
        { id: 'recall', name: 'from a program change to the sound' },
        ...(variants ? [{ id: 'variant' as const, name: `a ${variants.word}` }] : []),
        { id: 'control', name: 'a switch of its own' },
      ]}
    />
  );
}

interface ListeningProps {
  readonly phase: 'changes' | 'beeps';
  readonly unit: Unit;
  readonly press: () => void;
  readonly taken: number;
}

/** What has to be done now. */
function Listening({ phase, unit, press, taken }: ListeningProps) {
  return (
    <Rows>
      <p>
        {phase === 'beeps' ? (
          <>
            First, how quick you are: press whenever you hear the <b>beep</b>.
          </>
        ) : (
          <>
            Now play, and press whenever you hear <b>{unit.name} change</b>.
          </>
        )}
      </p>
      <Pad type="button" autoFocus onPointerDown={press} onKeyDown={(e) => e.key === 'Enter' && !e.repeat && press()}>
        {phase === 'beeps' ? 'I hear the beep' : 'I hear the change'}
      </Pad>
      <Soft role="status">
        {phase === 'beeps' ? `${taken} of ${BEEPS} beeps` : `${taken} of ${TAKES} changes`} · the space bar does too
      </Soft>
    </Rows>
  );
}

interface MeasureActsProps {
  readonly close: () => void;
  readonly phase: 'ready' | 'listening' | 'done';
  readonly unit: Unit;
  readonly what: Measured;
  readonly listen: (what: Measured) => void;
  readonly result: TakenTime | null;
  readonly change: (next: Profile, label: string) => string | null;
  readonly setRefused: (value: string | null) => void;
  readonly start: (what: Measured) => void;
}

/** Begins, repeats, and puts what was measured into the map. */
function MeasureActs({ close, phase, unit, what, listen, result, change, setRefused, start }: MeasureActsProps) {
  return (
    <Last style={{ flexWrap: 'wrap' }}>
      <Button onPress={close}>Cancel</Button>
      <Button isDisabled={phase === 'listening' || !twoAims(unit, what)} onPress={() => listen(what)}>
        Through the sound input
      </Button>
      {phase === 'done' && result ? (
        <MainButton
          onPress={() => {
            const times = { ...unit.profile.times, [what]: heardTime(unit, result.trials) };
            const sentence = change({ ...unit.profile, times }, 'measure a time');
            setRefused(sentence);
            if (sentence === null) close();
          }}
        >
          Add to the map
        </MainButton>
      ) : (
        <MainButton isDisabled={phase === 'listening' || !twoAims(unit, what)} onPress={() => start(what)}>
          By ear
        </MainButton>
      )}
    </Last>
  );
}
