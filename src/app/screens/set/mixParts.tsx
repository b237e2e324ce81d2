import styled from 'styled-components';
import type { Route } from '../../../core/sound';
import { Pick } from '../../widgets/Pick';
import { BOTH } from '../../state/mix';

export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
`;

/** A way out of this computer that can be chosen. */
export interface RouteChoice {
  readonly id: string;
  readonly name: string;
  readonly route: Route;
}

export function RoutePick({
  label,
  route,
  choices,
  onPick,
}: {
  readonly label: string;
  readonly route: Route;
  readonly choices: readonly RouteChoice[];
  readonly onPick: (route: Route) => void;
}) {
  const there = choices.some((c) => c.id === keyOf(route));
  return (
    <Pick
      label={label}
      hideLabel
      value={keyOf(route)}
      choices={there ? choices : [...choices, { id: keyOf(route), name: 'an output that is not there' }]}
      onPick={(id) => {
        const chosen = choices.find((c) => c.id === id);
        if (chosen) onPick(chosen.route);
      }}
    />
  );
}

const keyOf = (route: Route): string => route.join();

/** The ways out of so many outputs. */
export function routesOf(outputs: number): readonly RouteChoice[] {
  const pairs = Array.from({ length: Math.floor(outputs / 2) }, (_, i): Route => [2 * i, 2 * i + 1]);
  const singles = Array.from({ length: outputs }, (_, i): Route => [i]);
  const name = (route: Route): string => {
    if (outputs <= 2) return route.length === 2 ? 'left and right' : route[0] === 0 ? 'left' : 'right';
    return route.length === 2 ? `outputs ${route[0]! + 1} and ${route[1]! + 1}` : `output ${route[0]! + 1}`;
  };
  const all: readonly Route[] = [...(pairs.length > 0 ? pairs : [BOTH]), ...singles, []];
  return all.map((route) => ({ id: keyOf(route), name: route.length === 0 ? 'nowhere' : name(route), route }));
}
