import { Plug, RefreshCw, Volume1 } from 'lucide-react';
import styled from 'styled-components';
import { INQUIRY, noteOff, noteOn } from '../../../core/midi';
import { indexShow, setUnitField, type Port } from '../../../core/show';
import { messageWords } from '../../../wording';
import { Check } from '../../widgets/Check';
import { Button, MainButton, Soft } from '../../widgets/controls';
import { Pick } from '../../widgets/Pick';
import { PlainTable } from '../../widgets/plainTable';
import type { RealPort } from '../../adapters/realPorts';
import type { PortUse, RealName } from '../../state/ports';
import { openPorts, perform, say, sendOn, usePort } from '../../state/desk';
import { nameOf, portNamed, shownName } from '../../state/portNames';
import { STAND_IN, usePorts, type Answer } from '../../state/ports';
import { useShow } from '../../state/store';
import { desk, font } from '../../theme/tokens';
import { KnownPorts } from './KnownPorts';
import { StandInClock } from './StandInClock';
import { TimeCodePart } from './TimeCodePart';

const Page = styled.div`
  display: grid;
  gap: 16px;
  align-content: start;
  overflow: auto;
  height: 100%;
  padding: 14px 24px 30px;
`;

const Access = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  padding: 10px 14px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.sheet};
  & > p {
    flex: 1 1 320px;
  }
`;

const Row = styled.div`
  display: flex;
  gap: 8px;
`;

const State = styled.span<{ $bad: boolean }>`
  font-weight: 600;
  color: ${({ $bad }) => ($bad ? desk.rust : desk.ink)};
`;

const NONE = 'none';

/** Milliseconds that a unit has to answer. */
const ANSWER_WITHIN = 1500;

/** Asks who hangs on a port; where nobody answers, that is said. */
async function askWho({ id, name }: Port): Promise<void> {
  const before = usePorts.getState().heard;
  await sendOn(id, INQUIRY);
  setTimeout(() => {
    if (usePorts.getState().heard > before) return;
    say(`${name}: nobody answered. Is there a cable back from the unit, and does it know the question?`);
  }, ANSWER_WITHIN);
}

/** Which of the ports of the show is which of this computer's, what came in last, and who answers. */
export function PortsPart() {
  const show = useShow();
  const { access, ports, answers } = usePorts();
  return (
    <Page>
      <AccessLine />
      {access.kind === 'open' && <KnownPorts />}
      {show.ports.length === 0 ? (
        <p>The rig has no port yet: add one in the drawing.</p>
      ) : (
        <PlainTable aria-label="Ports">
          <thead>
            <tr>
              {['Port', 'Output', 'Input', 'Stand-in', 'State', 'Last received', 'Try it'].map((t) => (
                <th key={t} scope="col">
                  {t}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {show.ports.map((port) => (
              <PortRow key={port.id} port={port} ports={ports} open={access.kind === 'open'} />
            ))}
          </tbody>
        </PlainTable>
      )}
      {ports.length > 0 && <RealList ports={ports} />}
      {show.ports.length > 0 && <StandInClock />}
      {show.ports.length > 0 && <TimeCodePart />}
      {answers.length > 0 && <Answers answers={answers} />}
    </Page>
  );
}

function AccessLine() {
  const { access, ports } = usePorts();
  const ins = ports.filter((p) => p.direction === 'in').length;
  const outs = ports.length - ins;
  const words: Record<typeof access.kind, string> = {
    unasked: 'Everything is played by stand-ins so far. The browser asks once whether this page may use MIDI.',
    asking: 'The browser is being asked …',
    missing:
      'This browser has no Web MIDI for this page: use a browser that has, at the address of this computer itself. Stand-ins go on.',
    refused:
      'The browser does not let this page use MIDI. Allow MIDI for this page in its settings, then ask again. Stand-ins go on.',
    failed: `The browser cannot open MIDI${access.kind === 'failed' ? `: ${access.why}` : ''}. Stand-ins go on.`,
    open:
      ports.length === 0
        ? 'MIDI is open, and nothing is plugged into this computer. Plug something in: it is listed at once.'
        : `Open: ${outs === 1 ? '1 output' : `${outs} outputs`}, ${ins === 1 ? '1 input' : `${ins} inputs`}.`,
  };
  return (
    <Access role="status">
      <Plug size={20} aria-hidden />
      <p>{words[access.kind]}</p>
      {access.kind !== 'open' && access.kind !== 'asking' && (
        <MainButton onPress={() => void openPorts()}>
          {access.kind === 'unasked' ? "Use this computer's ports" : 'Ask again'}
        </MainButton>
      )}
    </Access>
  );
}

function PortRow({
  port,
  ports,
  open,
}: {
  readonly port: Port;
  readonly ports: readonly RealPort[];
  readonly open: boolean;
}) {
  const use = usePorts((s) => s.uses[port.id]) ?? STAND_IN;
  const lost = usePorts((s) => s.lost.includes(port.id));
  const input = portNamed(ports, use.in, 'in');
  const last = usePorts((s) => (input ? s.last[input.key] : undefined));
  const real = use.out !== null || use.in !== null;
  const set = (change: Partial<PortUse>): void => {
    const next = { ...use, ...change };
    // What is nothing else is a stand-in.
    usePort(port.id, next.out || next.in ? next : STAND_IN);
  };
  const state = !port.active ? 'switched off' : lost ? 'not connected' : real ? 'connected' : 'stand-in';
  return (
    <tr>
      <th scope="row">
        {port.name} <Soft style={{ font: `400 12px ${font.text}` }}>{port.cable === 'din' ? '5-pin' : 'USB'}</Soft>
      </th>
      <RealPorts port={port} ports={ports} use={use} open={open} set={set} />
      <td>
        <Check
          isSelected={use.standIn}
          isDisabled={!real}
          onChange={(standIn) => set({ standIn })}
          aria-label={`${port.name}: stand-in too`}
        />
      </td>
      <td>
        <State $bad={lost}>{state}</State>
      </td>
      <td>{last ? `${messageWords(last.bytes)} (${last.count} in all)` : <Soft>nothing</Soft>}</td>
      <PortActs port={port} />
    </tr>
  );
}

interface RealPortsProps {
  readonly port: Port;
  readonly ports: readonly RealPort[];
  readonly use: Readonly<{
    standIn: boolean;
    out: { key: string; name: string; maker: string; twins: number; place: number } | null;
    in: { key: string; name: string; maker: string; twins: number; place: number } | null;
  }>;
  readonly open: boolean;
  readonly set: (change: Partial<PortUse>) => void;
}

/** The real ports that the port is on this computer. */
function RealPorts({ port, ports, use, open, set }: RealPortsProps) {
  return (
    <>
      <td style={{ minWidth: 150 }}>
        <Real
          label={`${port.name} output`}
          ports={ports}
          direction="out"
          now={use.out}
          open={open}
          onPick={(out) => set({ out })}
        />
      </td>
      <td style={{ minWidth: 150 }}>
        <Real
          label={`${port.name} input`}
          ports={ports}
          direction="in"
          now={use.in}
          open={open}
          onPick={(heard) => set({ in: heard })}
        />
      </td>
    </>
  );
}

/** Tries the port, and stands in for it. */
function PortActs({ port }: { readonly port: Port }) {
  return (
    <td>
      <Row>
        <Button
          aria-label={`Send a test note on ${port.name}`}
          isDisabled={!port.active}
          onPress={() => {
            void sendOn(port.id, noteOn(1, 60, 80));
            setTimeout(() => void sendOn(port.id, noteOff(1, 60)), 300);
          }}
        >
          <Volume1 size={16} aria-hidden /> Test
        </Button>
        <Button
          aria-label={`Identify what is on ${port.name}`}
          isDisabled={!port.active}
          onPress={() => void askWho(port)}
        >
          <RefreshCw size={15} aria-hidden /> Identify
        </Button>
      </Row>
    </td>
  );
}

/** What is plugged into this computer: what each is bound to, and what came in on it last. */
function RealList({ ports }: { readonly ports: readonly RealPort[] }) {
  const show = useShow();
  const uses = usePorts((s) => s.uses);
  const last = usePorts((s) => s.last);
  const boundTo = (port: RealPort): string =>
    show.ports
      .filter((p) => {
        const use = uses[p.id];
        const name = port.direction === 'in' ? use?.in : use?.out;
        return name && portNamed(ports, name, port.direction)?.key === port.key;
      })
      .map((p) => p.name)
      .join(', ');
  return (
    <PlainTable aria-label="This computer's ports">
      <thead>
        <tr>
          {['This computer’s port', 'Maker', 'Direction', 'Port of the show', 'Last received'].map((t) => (
            <th key={t} scope="col">
              {t}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {ports.map((port) => {
          const heard = last[port.key];
          return (
            <tr key={port.key}>
              <th scope="row">{shownName(port, ports)}</th>
              <td>{port.maker || <Soft>not said</Soft>}</td>
              <td>{port.direction === 'in' ? 'Input' : 'Output'}</td>
              <td>{boundTo(port) || <Soft>none</Soft>}</td>
              <td>
                {heard ? (
                  `${messageWords(heard.bytes)} (${heard.count} in all)`
                ) : port.direction === 'in' ? (
                  <Soft>nothing</Soft>
                ) : (
                  ''
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </PlainTable>
  );
}

interface RealProps {
  readonly label: string;
  readonly ports: readonly RealPort[];
  readonly direction: RealPort['direction'];
  readonly now: RealName | null;
  readonly open: boolean;
  readonly onPick: (port: RealName | null) => void;
}

/** One of this computer's ports, or none. One that is not there now is still named. */
function Real({ label, ports, direction, now, open, onPick }: RealProps) {
  const all = ports.filter((p) => p.direction === direction);
  const there = portNamed(ports, now, direction);
  const away = now && !there ? [{ id: now.key, name: `${now.name} (not connected)` }] : [];
  if (!open && !now) return <Soft>–</Soft>;
  return (
    <Pick
      label={label}
      hideLabel
      value={there?.key ?? now?.key ?? NONE}
      choices={[
        { id: NONE, name: 'Not connected' },
        ...away,
        ...all.map((p) => ({ id: p.key, name: shownName(p, ports) })),
      ]}
      onPick={(id) => {
        const picked = all.find((p) => p.key === id);
        onPick(picked ? nameOf(picked, ports) : id === NONE ? null : now);
      }}
    />
  );
}

function Answers({ answers }: { readonly answers: readonly Answer[] }) {
  const show = useShow();
  const { ports, units } = indexShow(show);
  return (
    <PlainTable aria-label="Who answered">
      <thead>
        <tr>
          {['Heard on', 'Maker', 'Family', 'Model', 'Version', 'Is'].map((t) => (
            <th key={t} scope="col">
              {t}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {answers.map(({ portId, identity }, i) => {
          const text = JSON.stringify(identity);
          const noted = show.units.find((u) => JSON.stringify(u.answered) === text);
          const near = show.units.filter((u) => u.returns?.portId === portId);
          return (
            <tr key={i}>
              <td>{ports.get(portId)?.name ?? 'a port that is gone'}</td>
              <td>{identity.maker === '7D' ? '7D, not a maker: a stand-in' : identity.maker}</td>
              <td>{identity.family}</td>
              <td>{identity.member}</td>
              <td>{identity.version}</td>
              <td>
                <Pick
                  label={`The unit that answered as ${identity.family}`}
                  hideLabel
                  value={noted?.id ?? NONE}
                  choices={[{ id: NONE, name: 'choose the unit' }, ...(near.length > 0 ? near : show.units)]}
                  onPick={(id) => {
                    const unit = units.get(id);
                    if (unit) perform(setUnitField(show, id, 'answered', identity), `note who ${unit.name} is`);
                  }}
                />
              </td>
            </tr>
          );
        })}
      </tbody>
    </PlainTable>
  );
}
