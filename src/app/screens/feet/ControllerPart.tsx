import { Download } from 'lucide-react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { TRIGGERS, type Controller, type Trigger } from '../../../core/addressing';
import { changeFeet, changeProfile, feetOf, figureIn, layOutFloor, type Unit } from '../../../core/show';
import { TRIGGER_HEADS } from '../../../wording';
import { Check } from '../../widgets/Check';
import { Button, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { More } from '../../features/More';
import { Pick } from '../../widgets/Pick';
import { perform, say } from '../../state/desk';
import { problemLine } from '../../../wording';
import { exportAndSay } from '../../state/exports';
import { useShow } from '../../state/store';
import { FloorPlan } from './FloorPlan';
import { ControllerPick, SmallHead, Stack, Tools } from './parts';
import type { ReactNode } from 'react';

const Columns = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 22px 28px;
  align-items: start;
  & > section {
    display: grid;
    gap: 10px;
  }
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  align-items: start;
`;

const NONE = 'none';

const HOLDS = [
  ['program', 'Program changes'],
  ['control', 'Control changes'],
  ['note', 'Notes'],
  ['exclusive', 'Exclusive messages'],
  ['all', 'Messages in all'],
] as const;

const JUMPS = [
  { id: 'none', name: 'cannot go to a page' },
  { id: 'alone', name: 'can, but sends nothing with it' },
  { id: 'with-messages', name: 'can, together with messages' },
] as const;

const LETTERS = [
  { id: 'none', name: 'no displays' },
  { id: 'capitals', name: 'capitals only' },
  { id: 'plain', name: 'plain letters, no accents' },
  { id: 'any', name: 'any letters' },
];

const CALLS = [
  { id: 'control', name: 'control changes' },
  { id: 'note', name: 'notes' },
  { id: 'program', name: 'program changes' },
];

/** What kind of controller it is: its floor, what its switches hold, how it is programmed. */
export function ControllerPart({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const controller = unit.profile.controller!;
  const navigate = useNavigate();
  const others = show.units.filter((u) => u.profile.controller === null);
  const layOut = (id: string): void => {
    const done = layOutFloor(show, id);
    if (done.ok && perform(done.edit, 'lay out a foot controller')) {
      void navigate(`/show/${show.id}/feet/${id}/controller`);
    }
  };
  const { holds, display, call } = controller;
  const change = (next: Partial<Controller>, label: string): void => {
    const done = changeProfile(show, unit.id, { ...unit.profile, controller: { ...controller, ...next } });
    if (!done.ok) say(done.problems.map(problemLine)[0] ?? 'That does not fit.');
    else perform(done.edit, label);
  };
  const figure = (label: string, value: number, range: readonly [number, number], take: (v: number) => void) => (
    <DraftField
      label={label}
      numeric
      value={String(value)}
      commit={(text) => {
        const typed = figureIn(range, text);
        if (typed === undefined || !Number.isInteger(typed)) return `${range[0]} to ${range[1]}`;
        take(typed);
        return null;
      }}
    />
  );
  const toggle = (trigger: Trigger, on: boolean): void => {
    const triggers = TRIGGERS.filter((t) => (t === trigger ? on : controller.triggers.includes(t)));
    if (triggers.length === 0) say('A switch has to know at least one way to be pressed.');
    else change({ triggers: [...triggers] }, 'change what switches know');
  };
  return (
    <Stack>
      <ControllerTools unit={unit} others={others} layOut={layOut} />
      <Columns>
        <section>
          <FloorPlan unit={unit} />
        </section>
        <SwitchTriggers controller={controller} toggle={toggle} change={change} />
        <Capacity figure={figure} holds={holds} change={change} display={display} controller={controller} />
        <WithComputer unit={unit} call={call} change={change} figure={figure} controller={controller} />
      </Columns>
    </Stack>
  );
}

interface ControllerToolsProps {
  readonly unit: Unit;
  readonly others: Unit[];
  readonly layOut: (id: string) => void;
}

/** Which controller it is, and another unit made one. */
function ControllerTools({ unit, others, layOut }: ControllerToolsProps) {
  return (
    <Tools>
      <ControllerPick unit={unit} part="controller" />
      {others.length > 0 && (
        <Pick
          label="Another unit as a foot controller"
          width="230px"
          value={NONE}
          choices={[{ id: NONE, name: 'choose …' }, ...others.map((u) => ({ id: u.id, name: u.name }))]}
          onPick={layOut}
        />
      )}
      <Button onPress={() => void exportAndSay({ kind: 'unit', unitId: unit.id }).then(say)}>
        <Download size={16} aria-hidden /> Export the controller
      </Button>
      <Soft style={{ fontSize: 13, lineHeight: '34px' }}>
        What it is like; its pages go out under Files, Export. To import one, add a unit from its file in the rig.
      </Soft>
    </Tools>
  );
}

interface WithComputerProps {
  readonly unit: Unit;
  readonly call: Controller['call'];
  readonly change: (next: Partial<Controller>, label: string) => void;
  readonly figure: (
    label: string,
    value: number,
    range: readonly [number, number],
    take: (v: number) => void,
  ) => ReactNode;
  readonly controller: Controller;
}

/** What the controller sends to the computer, and what it is sent. */
function WithComputer({ unit, call, change, figure, controller }: WithComputerProps) {
  const show = useShow();
  return (
    <section>
      <SmallHead>With the computer</SmallHead>
      <Check
        isSelected={feetOf(show, unit.id).calls}
        onChange={(calls) =>
          perform(
            changeFeet(show, unit.id, (f) => ({ ...f, calls })),
            'change what goes to the computer',
          )
        }
      >
        Each switch also tells the computer which it was
      </Check>
      <Pick
        label="By"
        value={call.kind}
        choices={CALLS}
        onPick={(kind) => change({ call: { ...call, kind: kind as typeof call.kind } }, 'change its calls')}
      />
      <Pair>
        {figure('From number, from 0', call.first, [0, 127], (first) =>
          change({ call: { ...call, first } }, 'change its calls'),
        )}
        {figure('On channel', call.channel, [1, 16], (channel) =>
          change({ call: { ...call, channel } }, 'change its calls'),
        )}
      </Pair>
      <Soft style={{ fontSize: 13 }}>
        The number follows from page and switch alone: once programmed it stays right, whatever the switch does.
      </Soft>
      <SmallHead>Programming</SmallHead>
      <Check
        isSelected={controller.takes === 'transfer'}
        onChange={(on) => change({ takes: on ? 'transfer' : 'nothing' }, 'change how it is programmed')}
      >
        It takes its pages over the cable
      </Check>
      <Lines
        label="Before a transfer, step by step"
        value={controller.before}
        onTake={(before) => change({ before }, 'change its steps')}
      />
      <Lines label="After it" value={controller.after} onTake={(after) => change({ after }, 'change its steps')} />
    </section>
  );
}

interface CapacityProps {
  readonly figure: (
    label: string,
    value: number,
    range: readonly [number, number],
    take: (v: number) => void,
  ) => ReactNode;
  readonly holds: Controller['holds'];
  readonly change: (next: Partial<Controller>, label: string) => void;
  readonly display: Controller['display'];
  readonly controller: Controller;
}

/** How much the controller holds. */
function Capacity({ figure, holds, change, display, controller }: CapacityProps) {
  return (
    <section>
      <SmallHead>What one switch of a page holds</SmallHead>
      <Pair>
        {HOLDS.map(([kind, name]) => (
          <div key={kind}>
            {figure(name, holds[kind], [0, 256], (v) =>
              change({ holds: { ...holds, [kind]: v } }, 'change what a switch holds'),
            )}
          </div>
        ))}
      </Pair>
      <SmallHead>Displays and strips</SmallHead>
      <Pick
        label="Displays show"
        value={display.letters}
        choices={LETTERS}
        onPick={(letters) =>
          change({ display: { ...display, letters: letters as typeof display.letters } }, 'change its displays')
        }
      />
      <Pair>
        {figure('Letters on a display', display.length, [0, 60], (length) =>
          change({ display: { ...display, length } }, 'change its displays'),
        )}
        {figure('From switch to switch (mm)', controller.pitch, [10, 200], (pitch) =>
          change({ pitch }, 'change how far its switches lie apart'),
        )}
      </Pair>
    </section>
  );
}

interface SwitchTriggersProps {
  readonly controller: Controller;
  readonly toggle: (trigger: Trigger, on: boolean) => void;
  readonly change: (next: Partial<Controller>, label: string) => void;
}

/** Which presses a switch tells apart, and what it can go to. */
function SwitchTriggers({ controller, toggle, change }: SwitchTriggersProps) {
  return (
    <section>
      <SmallHead>What a switch knows</SmallHead>
      {TRIGGERS.filter((t) => t !== 'double').map((t) => (
        <TriggerCheck key={t} trigger={t} controller={controller} onChange={toggle} />
      ))}
      <More place="triggers" used={controller.triggers.includes('double')}>
        <TriggerCheck trigger="double" controller={controller} onChange={toggle} />
      </More>
      <Pick
        label="A switch"
        value={controller.jumps}
        choices={JUMPS}
        onPick={(jumps) => change({ jumps: jumps }, 'change what switches know')}
      />
      <Check
        isSelected={controller.stepsPages}
        onChange={(stepsPages) => change({ stepsPages }, 'change how pages are turned')}
      >
        It has page up and page down of its own
      </Check>
      <Check isSelected={controller.lights} onChange={(lights) => change({ lights }, 'change its lights')}>
        A light at each switch
      </Check>
    </section>
  );
}

interface TriggerProps {
  readonly trigger: Trigger;
  readonly controller: Controller;
  readonly onChange: (trigger: Trigger, on: boolean) => void;
}

const TriggerCheck = ({ trigger, controller, onChange }: TriggerProps) => (
  <Check isSelected={controller.triggers.includes(trigger)} onChange={(on) => onChange(trigger, on)}>
    {TRIGGER_HEADS[trigger]}
    {trigger === 'again' && ' (it flips between two)'}
  </Check>
);

interface LinesProps {
  readonly label: string;
  readonly value: readonly string[];
  readonly onTake: (lines: string[]) => void;
}

/** Steps for the person at the controller, with a semicolon between them. */
const Lines = ({ label, value, onTake }: LinesProps) => (
  <DraftField
    label={`${label} (with ; between)`}
    value={value.join('; ')}
    commit={(text) => {
      const lines = text
        .split(';')
        .map((l) => l.trim())
        .filter((l) => l !== '');
      if (lines.length > 12 || lines.some((l) => l.length > 200)) return 'at most twelve steps of 200 letters';
      onTake(lines);
      return null;
    }}
  />
);
