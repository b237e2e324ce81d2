import { ArrowDownToLine, ArrowUpFromLine, X } from 'lucide-react';
import { useMemo } from 'react';
import { ProgressBar } from 'react-aria-components';
import styled from 'styled-components';
import {
  compareMemories,
  memoryBytes,
  memoryOf,
  readMemoryBytes,
  transferTime,
  type FootMemory,
} from '../../../core/feet';
import { routeTo } from '../../../core/meaning';
import { indexShow, type Show, type Unit } from '../../../core/show';
import type { TransferNews } from '../../../playback';
import { memoryDifferenceWords, transferWords } from '../../../wording';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { LanternMark } from '../../widgets/LanternMark';
import { stopTransfer, transferPages } from '../../state/desk';
import { useFeet } from '../../state/feet';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { Exclusives } from './Exclusives';
import { ListenCheck } from './ListenCheck';
import { MemoryPart } from './MemoryPart';
import { ControllerPick, Say, SmallHead, Stack, Tools } from './parts';
import { StandInPart } from './StandInPart';
import { TypingList } from './TypingList';

const Todo = styled.ol`
  margin: 0;
  padding-left: 22px;
  display: grid;
  gap: 5px;
  max-width: 640px;
`;

const Track = styled.div`
  height: 16px;
  border: 1.5px solid ${desk.ink};
  border-radius: 3px 9px 3px 9px;
  background: ${desk.field};
  overflow: hidden;
  & > div {
    height: 100%;
    background: ${desk.tide};
  }
`;

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px;
  align-items: start;
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** How the pages get into the controller: over the cable, as a file, or by hand; and whether they are there. */
export function TransferPart({ unit }: { readonly unit: Unit }) {
  const byCable = unit.profile.controller!.takes === 'transfer';
  return (
    <Stack>
      <Tools>
        <ControllerPick unit={unit} part="transfer" />
      </Tools>
      <Two>
        <div style={{ display: 'grid', gap: 16 }}>
          {byCable ? <OverCable unit={unit} /> : <TypingList unit={unit} />}
          <ListenCheck unit={unit} />
        </div>
        <div style={{ display: 'grid', gap: 16 }}>
          <StandInPart unit={unit} />
          <Exclusives unit={unit} />
          <MemoryPart unit={unit} />
        </div>
      </Two>
    </Stack>
  );
}

/** What a controller is known to hold, compared with the pages here. */
export function useHeld(show: Show, unit: Unit) {
  const bytes = useFeet((s) => s.held[unit.id]);
  return useMemo(() => {
    const wanted = memoryOf(show, unit.id);
    const held = bytes && readMemoryBytes(bytes).value;
    return { wanted, held, differences: held ? compareMemories(wanted, held) : null };
  }, [show, unit.id, bytes]);
}

function OverCable({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const transfer = useNews((s) => (s.news.transfer?.unitId === unit.id ? s.news.transfer : null));
  const { wanted, differences } = useHeld(show, unit);
  const { before, after } = unit.profile.controller!;
  const bytes = useMemo(() => memoryBytes(wanted), [wanted]);
  const going = transfer !== null && transfer.end === null;
  const route = routeTo(show, unit);
  const out = route && indexShow(show).ports.get(route.portId)?.name;
  const back = unit.returns && indexShow(show).ports.get(unit.returns.portId)?.name;
  const seconds = Math.max(1, Math.round(transferTime(bytes) / 1e6));
  return (
    <section style={{ display: 'grid', gap: 10 }} aria-label="Transfer over the cable">
      <SmallHead>Over the cable</SmallHead>
      <Held unit={unit} />
      <CableSteps out={out} back={back} before={before} wanted={wanted} bytes={bytes} seconds={seconds} after={after} />
      <Tools>
        <MainButton
          isDisabled={going || !out || !back || wanted.pages.length === 0}
          onPress={() => void transferPages(unit.id, { kind: 'write', bytes })}
        >
          <ArrowUpFromLine size={16} aria-hidden /> Transfer
        </MainButton>
        <Button isDisabled={going || !out || !back} onPress={() => void transferPages(unit.id, { kind: 'read' })}>
          <ArrowDownToLine size={16} aria-hidden /> Read and compare
        </Button>
        {going && (
          <Button onPress={() => void stopTransfer()}>
            <X size={16} aria-hidden /> Cancel
          </Button>
        )}
      </Tools>
      {transfer && <Progress unit={unit} transfer={transfer} />}
      {differences !== null && differences.length > 0 && (
        <details open={differences.length < 12}>
          <summary>{differences.length} differences from the pages here</summary>
          <Todo as="ul" aria-label="Differences">
            {differences.slice(0, 200).map((d, i) => (
              <li key={i}>{memoryDifferenceWords(show, unit.id, d)}</li>
            ))}
          </Todo>
        </details>
      )}
    </section>
  );
}

interface CableStepsProps {
  readonly out: string | undefined;
  readonly back: string | null | undefined;
  readonly before: readonly string[];
  readonly wanted: FootMemory;
  readonly bytes: number[];
  readonly seconds: number;
  readonly after: readonly string[];
}

/** What has to be done at the controller first. */
function CableSteps({ out, back, before, wanted, bytes, seconds, after }: CableStepsProps) {
  return (
    <Todo aria-label="Steps at the controller">
      <li>
        {out && back
          ? `Both cables plugged in: out of ${out}, back into ${back}.`
          : 'No cable leads there and back: plug both in the rig first.'}
      </li>
      {before.map((line) => (
        <li key={line}>{line}</li>
      ))}
      <li>
        Press Transfer: {wanted.pages.length} pages, {bytes.length.toLocaleString('en')} bytes, about {seconds} s over a
        5-pin cable with reading back.
      </li>
      {after.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </Todo>
  );
}

/** Whether the controller holds the pages as they are here. */
export function Held({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const { held, differences } = useHeld(show, unit);
  const lantern = held === undefined ? 'hollow' : differences!.length === 0 ? 'lit' : 'cracked';
  const words = {
    hollow: 'What it holds is not known yet.',
    lit: 'It holds the pages as they are here.',
    cracked: 'It holds other pages than these.',
  }[lantern];
  return (
    <p style={{ display: 'flex', alignItems: 'center', gap: 8, font: `600 16px/1.3 ${font.text}` }}>
      <LanternMark mark={lantern} size={24} /> {words}
    </p>
  );
}

function Progress({ unit, transfer }: { readonly unit: Unit; readonly transfer: TransferNews }) {
  const { share, reading, again, end, kind } = transfer;
  if (end) {
    return (
      <Say role="status" $wrong={end.how !== 'identical' && end.how !== 'read'}>
        {transferWords(unit.name, end)}
        {again > 0 && ` ${again} ${again === 1 ? 'message' : 'messages'} had to be sent again.`}
      </Say>
    );
  }
  return (
    <ProgressBar aria-label="Transfer" value={share * 100}>
      {({ percentage = 0 }) => (
        <div style={{ display: 'grid', gap: 4 }}>
          <Track>
            <div style={{ width: `${percentage}%` }} />
          </Track>
          <Soft>
            {reading ? (kind === 'write' ? 'Reading back' : 'Reading') : 'Transferring'}: {Math.round(percentage)} %
            {again > 0 && `, ${again} sent again`}
          </Soft>
        </div>
      )}
    </ProgressBar>
  );
}
