import { Play, Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { valueRange, type Control, isTap } from '../../core/addressing';
import { indexShow, putMove, removeMove, type Move, type Show, type Unit } from '../../core/show';
import { songsWords } from '../../wording';
import { ControlField } from '../features/ControlField';
import { DraftField } from '../widgets/DraftField';
import { PartLinks } from '../widgets/PartLinks';
import { Pick } from '../widgets/Pick';
import { UnitBadge } from '../widgets/UnitBadge';
import { Button, MainButton, SignButton, Soft } from '../widgets/controls';
import { audition, newId, perform } from '../state/desk';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { TONE_PARTS } from './tones/toneParts';

const Page = styled.div`
  height: 100%;
  overflow: auto;
  padding: 0 16px 24px;
`;

const Head = styled.header`
  display: flex;
  align-items: end;
  gap: 14px;
  padding-top: 12px;
  margin-bottom: 14px;
  border-bottom: 1.5px solid ${desk.line};
  & > h1 {
    font-size: 26px;
    padding-bottom: 8px;
  }
  & > div {
    padding-bottom: 8px;
  }
`;

const Cards = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(500px, 1fr));
  gap: 14px;
`;

const Card = styled.section`
  display: grid;
  gap: 10px;
  align-content: start;
  padding: 14px 16px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 18px 4px 18px;
  background: ${desk.sheet};
`;

const Line = styled.div`
  display: flex;
  align-items: end;
  gap: 8px;
`;

const Nothing = styled.div`
  display: grid;
  place-content: center;
  gap: 12px;
  max-width: 460px;
  margin: 80px auto 0;
`;

/** Something that a move can do: a control of a unit. */
interface Doable {
  readonly unit: Unit;
  readonly control: Control;
}

const doables = (show: Show): Doable[] =>
  show.units.flatMap((unit) => unit.profile.controls.map((control) => ({ unit, control })));

/** What a step does at first: a switch goes on, a tap comes four times, all else goes to its low end. */
function firstValue({ encoding }: Control): number {
  if (isTap(encoding)) return 4;
  const { low, high } = valueRange(encoding);
  return high - low === 1 ? high : low;
}

/** Named actions with no state to hold, for placing in songs. */
export function MovesScreen() {
  const show = useShow();
  const can = doables(show);
  const add = (): void => {
    const first = can[0];
    if (!first) return;
    const step = { unitId: first.unit.id, controlId: first.control.id, value: firstValue(first.control) };
    const name = `Move ${show.moves.length + 1}`;
    perform(putMove(show, { id: newId(), name, notes: '', steps: [step] }), `add ${name}`);
  };
  return (
    <Page>
      <Head>
        <h1>Moves</h1>
        <div>
          <Button isDisabled={can.length === 0} onPress={add}>
            <Plus size={15} aria-hidden /> New move
          </Button>
        </div>
        <PartLinks label="Tones and moves" base={`/show/${show.id}/tones`} parts={TONE_PARTS} current="moves" />
      </Head>
      {show.moves.length === 0 ? (
        <Nothing>
          <h2>No moves yet</h2>
          <p>A move is a named action with no state to hold: four taps, tuner on, looper record.</p>
          <div>
            <MainButton isDisabled={can.length === 0} onPress={add}>
              Add the first move
            </MainButton>
          </div>
          {can.length === 0 && <Soft>No unit has a control yet: write one into its map first.</Soft>}
        </Nothing>
      ) : (
        <Cards>
          {show.moves.map((move) => (
            <MoveCard key={move.id} show={show} move={move} can={can} />
          ))}
        </Cards>
      )}
    </Page>
  );
}

interface CardProps {
  readonly show: Show;
  readonly move: Move;
  readonly can: readonly Doable[];
}

function MoveCard({ show, move, can }: CardProps) {
  const { units } = indexShow(show);
  const put = (change: Partial<Move>, label: string): string | null =>
    perform(putMove(show, { ...move, ...change }), label) ? null : 'a name that is not empty';
  const songs = show.songs.filter((s) =>
    s.cues.some((c) => c.action.kind === 'move' && c.action.moveId === move.id),
  ).length;
  const removal = removeMove(show, move.id);
  const tryIt = (): void => {
    for (const { unitId, controlId, value } of move.steps) void audition(unitId, { controls: { [controlId]: value } });
  };
  return (
    <Card aria-label={move.name}>
      <Line>
        <DraftField
          label="Name"
          value={move.name}
          commit={(name) => put({ name }, 'rename a move')}
          style={{ flex: 1 }}
        />
        <Button onPress={tryIt}>
          <Play size={14} aria-hidden /> Try it
        </Button>
        <SignButton
          aria-label={`Remove ${move.name}`}
          isDisabled={!removal}
          onPress={() => perform(removal, `remove ${move.name}`)}
        >
          <Trash2 size={16} />
        </SignButton>
      </Line>
      {move.steps.map((step, i) => {
        const unit = units.get(step.unitId);
        const control = unit?.profile.controls.find((c) => c.id === step.controlId);
        const replace = (value: Partial<typeof step>, label: string): void =>
          void put({ steps: move.steps.with(i, { ...step, ...value }) }, label);
        return (
          <StepLine
            key={i}
            index={i}
            move={move}
            unit={unit}
            show={show}
            step={step}
            can={can}
            replace={replace}
            control={control}
            put={put}
          />
        );
      })}
      <Line style={{ alignItems: 'center', justifyContent: 'space-between' }}>
        <Button onPress={() => put({ steps: [...move.steps, move.steps.at(-1)!] }, 'add a step to a move')}>
          <Plus size={14} aria-hidden /> Step
        </Button>
        <Soft>{songs === 0 ? 'in no song yet' : songsWords(songs)}</Soft>
      </Line>
    </Card>
  );
}

interface StepLineProps {
  readonly index: number;
  readonly move: Move;
  readonly unit: Unit | undefined;
  readonly show: Show;
  readonly step: Move['steps'][number];
  readonly can: readonly Doable[];
  readonly replace: (value: Partial<Move['steps'][number]>, label: string) => void;
  readonly control: Control | undefined;
  readonly put: (change: Partial<Move>, label: string) => string | null;
}

/** One step of a move: what goes where, and when. */
function StepLine({ index, move, unit, show, step, can, replace, control, put }: StepLineProps) {
  return (
    <Line role="group" aria-label={`Step ${index + 1} of ${move.name}`}>
      {unit && <UnitBadge monogram={unit.monogram} index={show.units.indexOf(unit)} size={24} />}
      <Pick
        label={`Step ${index + 1}`}
        width="250px"
        value={`${step.unitId} ${step.controlId}`}
        choices={can.map((d) => ({
          id: `${d.unit.id} ${d.control.id}`,
          name: `${d.unit.name}: ${d.control.name}`,
        }))}
        onPick={(id) => {
          const to = can.find((d) => `${d.unit.id} ${d.control.id}` === id)!;
          const value = firstValue(to.control);
          replace({ unitId: to.unit.id, controlId: to.control.id, value }, 'change a move');
        }}
      />
      {control && (
        <ControlField
          control={control}
          label={isTap(control.encoding) ? 'Taps, a beat apart' : 'goes to'}
          value={step.value}
          required
          onValue={(value) => value !== null && replace({ value }, 'change a move')}
        />
      )}
      <SignButton
        aria-label={`Remove step ${index + 1}`}
        isDisabled={move.steps.length === 1}
        onPress={() => put({ steps: move.steps.filter((_, k) => k !== index) }, 'shorten a move')}
      >
        <Trash2 size={15} />
      </SignButton>
    </Line>
  );
}
