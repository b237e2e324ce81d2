import { Volume1 } from 'lucide-react';
import styled from 'styled-components';
import type { Port } from '../../../core/show';
import type { RealPort } from '../../adapters/realPorts';
import { clickOn, usePort } from '../../state/desk';
import { knownElsewhere, nameOf, shownName, type KnownPort } from '../../state/portNames';
import { STAND_IN, usePorts } from '../../state/ports';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { Button, MainButton } from '../../widgets/controls';

const Box = styled.section`
  display: grid;
  gap: 8px;
  padding: 10px 14px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 14px 4px 14px;
  background: ${desk.lampWash};
  & ul {
    display: grid;
    gap: 6px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  & li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
  }
`;

/** Ports that had a real one on the computer that the show comes from: those of the same name here are offered. */
export function KnownPorts() {
  const show = useShow();
  const { ports, uses } = usePorts();
  const known = knownElsewhere(show.ports, uses, ports);
  if (known.length === 0) return null;
  const certain = known.filter((k) => k.alike.length === 1);
  const use = ({ port, direction }: KnownPort, real: RealPort): void => {
    const before = uses[port.id] ?? { ...STAND_IN, standIn: false };
    usePort(port.id, { ...before, [direction]: nameOf(real, ports) });
  };
  return (
    <Box aria-label="Known from another computer">
      <b>This show was played with real ports before.</b>
      <ul>
        {known.map((k) => (
          <KnownRow key={`${k.port.id} ${k.direction}`} known={k} ports={ports} onUse={(real) => use(k, real)} />
        ))}
      </ul>
      {certain.length > 1 && (
        <div>
          <MainButton onPress={() => useAll(certain, uses, ports)}>Use all that are here once</MainButton>
        </div>
      )}
    </Box>
  );
}

/** Both directions of one port are bound in one go: what is asked one by one would not know of the other. */
function useAll(
  certain: readonly KnownPort[],
  uses: ReturnType<typeof usePorts.getState>['uses'],
  ports: readonly RealPort[],
): void {
  const byPort = new Map<Port, KnownPort[]>();
  for (const k of certain) byPort.set(k.port, [...(byPort.get(k.port) ?? []), k]);
  for (const [port, list] of byPort) {
    const names = Object.fromEntries(list.map(({ direction, alike }) => [direction, nameOf(alike[0]!, ports)]));
    usePort(port.id, { ...(uses[port.id] ?? { ...STAND_IN, standIn: false }), ...names });
  }
}

interface RowProps {
  readonly known: KnownPort;
  readonly ports: readonly RealPort[];
  readonly onUse: (real: RealPort) => void;
}

function KnownRow({ known: { port, direction, name, alike }, ports, onUse }: RowProps) {
  const what = `${port.name} ${direction === 'out' ? 'output' : 'input'}`;
  if (alike.length === 0) {
    return (
      <li>
        {what} was {name}: nothing here is called so.
      </li>
    );
  }
  return (
    <li>
      {what} was {name}
      {alike.length > 1 && `: ${alike.length} here are called so. Which one?`}
      {alike.map((real) => (
        <span key={real.key} style={{ display: 'flex', gap: 6 }}>
          {direction === 'out' && alike.length > 1 && (
            <Button aria-label={`Try ${shownName(real, ports)}`} onPress={() => clickOn(real.key)}>
              <Volume1 size={16} aria-hidden /> Does this one click?
            </Button>
          )}
          <Button onPress={() => onUse(real)}>Use {shownName(real, ports)}</Button>
        </span>
      ))}
    </li>
  );
}
