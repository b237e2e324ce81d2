import { Keyboard, RotateCcw } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { memoryBytes, memoryOf } from '../../../core/feet';
import type { Unit } from '../../../core/show';
import { Button, Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { StandInFloor } from '../../features/StandInFloor';
import { controllerHolds, footFaults, loadFoot } from '../../state/desk';
import { useShow } from '../../state/store';
import { SmallHead, Tools } from './parts';

const WELL = 'well';
const FAULTS = [
  { id: WELL, name: 'works as it should' },
  { id: 'lose', name: 'loses every 9th message' },
  { id: 'damage', name: 'damages every 9th message' },
  { id: 'double', name: 'doubles every 9th message' },
  { id: 'delay', name: 'delays every 9th message' },
] as const;
const EVERY = 9;

/** The controller's stand-in: it runs the pages that were transferred to it. */
export function StandInPart({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const [fault, setFault] = useState<string>(WELL);
  const byCable = unit.profile.controller!.takes === 'transfer';
  const set = (id: string): void => {
    setFault(id);
    const how = FAULTS.find((f) => f.id === id)!.id;
    void footFaults(unit.id, how === WELL ? null : { how, every: EVERY });
  };
  const typeIn = (): void => {
    const bytes = memoryBytes(memoryOf(show, unit.id));
    void loadFoot(unit.id, bytes);
    controllerHolds(unit.id, bytes);
  };
  const empty = (): void => {
    const bytes = memoryBytes({ pages: [] });
    void loadFoot(unit.id, null);
    controllerHolds(unit.id, bytes);
  };
  return (
    <section style={{ display: 'grid', gap: 10 }} aria-label="Stand-in">
      <SmallHead>Stand-in</SmallHead>
      <StandInFloor unit={unit} />
      <Tools>
        {byCable ? (
          <Pick label="The cable to the stand-in" width="220px" value={fault} choices={FAULTS} onPick={set} />
        ) : (
          <Button onPress={typeIn}>
            <Keyboard size={16} aria-hidden /> Type the pages into the stand-in
          </Button>
        )}
        <Button onPress={empty}>
          <RotateCcw size={16} aria-hidden /> Clear the stand-in
        </Button>
      </Tools>
      <Soft style={{ fontSize: 13 }}>
        It runs what it holds, not what is typed here.{' '}
        <Link to={`/show/${show.id}/stage?floor=${unit.id}`}>Open it beside the stage</Link>
      </Soft>
    </section>
  );
}
