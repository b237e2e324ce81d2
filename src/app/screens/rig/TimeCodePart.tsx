import { useState } from 'react';
import styled from 'styled-components';
import { CODE_RATES, codeMicros, codeText, readCode } from '../../../core/clock';
import { codeRanges } from '../../../core/meaning';
import { setTimeCode } from '../../../core/show';
import { codeExample } from '../../../wording';
import { perform, standInMachine } from '../../state/desk';
import { useNews } from '../../state/news';
import { useShow } from '../../state/store';
import { Button, Soft } from '../../widgets/controls';
import { Check } from '../../widgets/Check';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
  margin-bottom: 10px;
`;

const NONE = '';

/** How a stand-in machine may run. */
const WAYS = {
  true: { name: 'at its speed', speed: 1, jitter: 0 },
  shaking: { name: 'shaking by 2 ms', speed: 1, jitter: 2000 },
  slow: { name: '1 % too slow', speed: 0.99, jitter: 0 },
  fast: { name: '1 % too fast', speed: 1.01, jitter: 0 },
  backwards: { name: 'backwards', speed: -1, jitter: 0 },
} as const;

/** Where time code comes from, how it is counted, and a machine to try it with. */
export function TimeCodePart() {
  const show = useShow();
  const { portId, rate, sends } = show.timeCode;
  return (
    <section aria-label="Time code">
      <h2 style={{ fontSize: 17, marginBottom: 6 }}>Time code</h2>
      <Row>
        <Pick
          label="Time code comes in on"
          width="200px"
          value={portId ?? NONE}
          choices={[{ id: NONE, name: 'none: our own clock leads' }, ...show.ports]}
          onPick={(id) =>
            perform(setTimeCode(show, { portId: id === NONE ? null : id }), 'change where time code comes from')
          }
        />
        <Pick
          label="Frames a second"
          width="120px"
          value={rate}
          choices={CODE_RATES.map((id) => ({ id, name: id }))}
          onPick={(to) => perform(setTimeCode(show, { rate: to }), 'change the frames of time code')}
        />
        <Soft style={{ fontSize: 13, paddingBottom: 8, maxWidth: 420 }}>
          A song of the set begins where the code is at its place; in the song, Structure says which. Between songs we
          wait.
        </Soft>
      </Row>
      <Row role="group" aria-label="Time code goes out on">
        <span style={{ fontSize: 13, fontWeight: 600 }}>Goes out on</span>
        {show.ports.map(({ id, name }) => (
          <Check
            key={id}
            isSelected={sends.includes(id)}
            onChange={(on) =>
              perform(
                setTimeCode(show, { sends: on ? [...sends, id] : sends.filter((s) => s !== id) }),
                on ? `time code on ${name}` : `no time code on ${name}`,
              )
            }
          >
            {name}
          </Check>
        ))}
      </Row>
      {portId !== null && <Machine key={portId} portId={portId} />}
    </section>
  );
}

/** A machine that plays back, to try songs with that time code leads. */
function Machine({ portId }: { readonly portId: string }) {
  const show = useShow();
  const { rate } = show.timeCode;
  const [first] = codeRanges(show, rate);
  const [from, setFrom] = useState<string | null>(null);
  const [way, setWay] = useState<keyof typeof WAYS>('true');
  // Whoever left this view and came back finds it as it is.
  const runs = useNews(({ news: { code } }) => code !== null && code.how !== 'stands');
  const text =
    from ?? show.songs.find((s) => s.id === first?.songId)?.code ?? codeText(readCode('01:00:00', rate)!, rate);
  const run = (): void => {
    const { speed, jitter } = WAYS[way];
    void standInMachine(portId, { kind: 'play', place: codeMicros(readCode(text, rate)!, rate), rate, speed, jitter });
  };
  return (
    <Row role="group" aria-label="A machine to try with">
      <DraftField
        label="Machine runs from"
        style={{ width: 150 }}
        value={text}
        commit={(typed) => {
          const label = readCode(typed, rate);
          if (!label) return codeExample(rate);
          setFrom(codeText(label, rate));
          return null;
        }}
      />
      <Pick
        label="It runs"
        width="160px"
        value={way}
        choices={(Object.keys(WAYS) as (keyof typeof WAYS)[]).map((id) => ({ id, name: WAYS[id].name }))}
        onPick={setWay}
      />
      <Button isDisabled={readCode(text, rate) === null} onPress={run}>
        {runs ? 'Jump there' : 'Run the machine'}
      </Button>
      <Button isDisabled={!runs} onPress={() => void standInMachine(portId, { kind: 'stop' })}>
        Stop it
      </Button>
      <Button isDisabled={!runs} onPress={() => void standInMachine(portId, { kind: 'drop-out', length: 3_000_000 })}>
        Drop out for 3 s
      </Button>
    </Row>
  );
}
