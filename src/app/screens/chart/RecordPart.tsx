import simplify from 'simplify-js';
import { Circle, Square } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { isContinuous, type Sender } from '../../../core/addressing';
import { microsAt, songTime, type Show, type Song, type Sweep, type Unit } from '../../../core/show';
import { barOfTick, microsToSeconds, secondsToTicks, type Ticks } from '../../../core/time';
import { Button, Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { SenderKey } from '../../features/StandInKeys';
import { practiseSong, recordPedal, recordedPedal, stopSong } from '../../state/desk';
import { useNews } from '../../state/news';

import { Row } from './panelParts';
import { SWEEP_ERROR } from './sweepError';

interface Props {
  readonly show: Show;
  readonly song: Song;
  readonly sweep: Sweep;
  /** Points of a line: ticks from the sweep's start, and where the pedal was, from 0 to 1. */
  readonly onRecorded: (points: readonly { readonly at: Ticks; readonly share: number }[]) => void;
}

interface Pedal {
  readonly unit: Unit;
  readonly sender: Sender;
}

/** A sweep played in with a pedal: from a bar before it, while the song plays. */
export function RecordPart({ show, ...rest }: Props) {
  const pedals = pedalsOf(show);
  return pedals.length === 0 ? null : <Recorder pedals={pedals} {...rest} />;
}

const pedalsOf = (show: Show): Pedal[] =>
  show.units.flatMap((unit) =>
    unit.returns === null
      ? []
      : unit.profile.senders.filter((s) => isContinuous(s.encoding)).map((sender) => ({ unit, sender })),
  );

function Recorder({ pedals, song, sweep, onRecorded }: Omit<Props, 'show'> & { readonly pedals: readonly Pedal[] }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [going, setGoing] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const begun = useRef(false);
  const playing = useNews((s) => s.news.playing && s.news.songId === song.id);
  const place = useNews((s) => s.news.place);
  const pedal = pedals.find((p) => `${p.unit.id} ${p.sender.id}` === chosen) ?? pedals[0]!;
  const over = place >= microsAt(songTime(song), sweep.to);
  const start = async (): Promise<void> => {
    const { bars } = songTime(song);
    const bar = barOfTick(bars, sweep.from);
    setSaid(null);
    setGoing(true);
    await recordPedal({ unitId: pedal.unit.id, senderId: pedal.sender.id });
    await practiseSong(song.id, Math.max(0, bar.tick - bar.length));
  };
  const finish = async (): Promise<void> => {
    setGoing(false);
    await stopSong();
    const { tempo } = songTime(song);
    const length = sweep.to - sweep.from;
    const taken = (await recordedPedal()).map(({ at, share }) => ({
      x: (secondsToTicks(tempo, microsToSeconds(at)) - sweep.from) / length,
      y: share,
    }));
    await recordPedal(null);
    const before = taken.findLast((p) => p.x <= 0);
    const inside = taken.filter((p, i) => p.x > 0 && p.x <= 1 && p.x > (taken[i - 1]?.x ?? -1));
    const first = before ?? inside[0];
    if (!first || inside.length === 0) {
      setSaid(`${pedal.sender.name} was not moved between the start and the end of the sweep; it stays as it was.`);
      return;
    }
    const whole = [{ x: 0, y: first.y }, ...inside, { x: 1, y: inside.at(-1)!.y }];
    const points = simplify(whole, SWEEP_ERROR, true);
    onRecorded(points.map((p) => ({ at: Math.round(p.x * length), share: Math.min(1, Math.max(0, p.y)) })));
    setSaid(`${taken.length} values taken, ${points.length} points kept: within ${SWEEP_ERROR * 100} % of the range.`);
  };
  useEffect(() => {
    if (!going) return;
    if (playing && !over) begun.current = true;
    else if (begun.current) {
      begun.current = false;
      void finish();
    }
  });
  return (
    <div role="group" aria-label="Record from a pedal" style={{ display: 'grid', gap: 6 }}>
      <RecordTools pedal={pedal} pedals={pedals} setChosen={setChosen} going={going} finish={finish} start={start} />
      {going && <SenderKey unit={pedal.unit} sender={pedal.sender} />}
      {said !== null && (
        <Soft role="status" aria-label="Recording" style={{ fontSize: 13 }}>
          {said}
        </Soft>
      )}
    </div>
  );
}

interface RecordToolsProps {
  readonly pedal: Pedal;
  readonly pedals: readonly Pedal[];
  readonly setChosen: (value: string | null) => void;
  readonly going: boolean;
  readonly finish: () => Promise<void>;
  readonly start: () => Promise<void>;
}

/** Which pedal is recorded, and its beginning and end. */
function RecordTools({ pedal, pedals, setChosen, going, finish, start }: RecordToolsProps) {
  return (
    <Row style={{ flexWrap: 'nowrap' }}>
      <Pick
        label="Record from"
        value={`${pedal.unit.id} ${pedal.sender.id}`}
        choices={pedals.map((p) => ({
          id: `${p.unit.id} ${p.sender.id}`,
          name: `${p.unit.name}: ${p.sender.name}`,
        }))}
        onPick={setChosen}
      />
      {going ? (
        <Button onPress={() => void finish()}>
          <Square size={14} aria-hidden /> Done
        </Button>
      ) : (
        <Button onPress={() => void start()}>
          <Circle size={14} aria-hidden /> Record
        </Button>
      )}
    </Row>
  );
}
