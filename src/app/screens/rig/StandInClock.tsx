import { useState } from 'react';
import styled from 'styled-components';
import { RANGES, figureIn, rangeWords } from '../../../core/show';
import { Button, Soft } from '../../widgets/controls';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';
import { standInClock } from '../../state/desk';
import { useShow } from '../../state/store';

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
`;

/** A clock to try songs with that follow one: it comes in on a port as from another machine. */
export function StandInClock() {
  const show = useShow();
  const followed = show.songs.find((s) => s.followsPortId !== null)?.followsPortId;
  const [portId, setPort] = useState(followed ?? show.ports[0]!.id);
  const [bpm, setBpm] = useState(120);
  const [going, setGoing] = useState<string | null>(null);
  const start = (tempo: number): void => {
    void standInClock(portId, tempo);
    setGoing(portId);
  };
  return (
    <section aria-label="Stand-in clock">
      <h2 style={{ fontSize: 17, marginBottom: 6 }}>A clock to try with</h2>
      <Row>
        <Pick label="Comes in on" width="160px" value={portId} choices={show.ports} onPick={setPort} />
        <DraftField
          label="BPM"
          style={{ width: 90 }}
          numeric
          value={String(bpm)}
          commit={(text) => {
            const typed = figureIn(RANGES.bpm, text);
            if (typed === undefined) return rangeWords(RANGES.bpm);
            setBpm(typed);
            if (going !== null) start(typed);
            return null;
          }}
        />
        {going === null ? (
          <Button onPress={() => start(bpm)}>Start the clock</Button>
        ) : (
          <Button
            onPress={() => {
              void standInClock(going, null);
              setGoing(null);
            }}
          >
            Stop the clock
          </Button>
        )}
        <Soft style={{ fontSize: 13, paddingBottom: 8 }}>
          A song that follows this port starts with it, at its tempo. In the song, Structure says which port it follows.
        </Soft>
      </Row>
    </section>
  );
}
