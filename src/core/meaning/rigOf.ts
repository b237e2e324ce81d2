import { slotMessages } from '../addressing';
import { microsOf, pacesOf, type PortSpec, type RelaySpec, type RigSpec, type SlotStart, type UnitSpec } from '../rig';
import { indexShow, type Port, type Show, slotsById, type Unit } from '../show';

const specs = new WeakMap<readonly Unit[], { ports: readonly Port[]; spec: RigSpec }>();

/** The rig as its wires know it. Ports that are switched off carry nothing and are left out. */
export function rigSpec(show: Show): RigSpec {
  const kept = specs.get(show.units);
  if (kept && kept.ports === show.ports) return kept.spec;
  const spec: RigSpec = {
    ports: show.ports.filter((p) => p.active).map(portSpec),
    units: show.units.map((unit) => unitSpec(show, unit)),
  };
  specs.set(show.units, { ports: show.ports, spec });
  return spec;
}

function portSpec({ id, cable, softThru, delay }: Port): PortSpec {
  const [soonest, typical, worst] = (['soonest', 'typical', 'worst'] as const).map((at) => microsOf(delay, at));
  const delays = { soonest: soonest!, typical: typical!, worst: worst! };
  return { id, cable, softThru, delay: delays.worst, delays };
}

function unitSpec(show: Show, unit: Unit): UnitSpec {
  const starts: Record<number, SlotStart> = {};
  for (const { index, startVariant, startControls } of unit.slots) {
    if (startVariant === null && startControls.length === 0) continue;
    const controls = Object.fromEntries(startControls.map((c) => [c.controlId, c.value]));
    starts[index] = { variant: startVariant, controls };
  }
  const paces = pacesOf(unit.profile, unit.slots);
  return {
    id: unit.id,
    input: unit.input,
    listens: unit.listens,
    profile: unit.profile,
    pace: paces.worst,
    paces,
    returns: unit.returns,
    starts,
    relays: unit.relays.flatMap((relay) => relaySpec(show, unit, relay)),
  };
}

function relaySpec(show: Show, unit: Unit, relay: Unit['relays'][number]): RelaySpec[] {
  const target = indexShow(show).units.get(relay.toUnitId);
  const slot = target && slotsById(target).get(relay.toSlotId);
  const from = relay.when.slotId === null ? null : slotsById(unit).get(relay.when.slotId);
  if (!target || !slot || from === undefined) return [];
  const messages = slotMessages(target.profile.plan, target.channel, slot.index, null);
  if (!messages) return [];
  return [{ slot: from?.index ?? null, variant: relay.when.variant, toUnit: target.id, messages }];
}

/** How a unit is reached from the computer: the port, and how many units pass the bytes on first. */
export interface Route {
  readonly portId: string;
  readonly hops: number;
  /** Units that pass the bytes on, the nearest to the port last. */
  readonly through: readonly Unit[];
}

/** The route to a unit, or undefined where no port of the rig reaches it. */
export function routeTo(show: Show, unit: Unit): Route | undefined {
  let at: Unit | undefined = unit;
  const through: Unit[] = [];
  for (let hops = 0; at && hops <= show.units.length; hops++) {
    const input: Unit['input'] = at.input;
    if (!input) return undefined;
    if (input.from === 'port') return { portId: input.portId, hops, through };
    // Only a thru passes on what the unit before it receives.
    at = input.thru ? indexShow(show).units.get(input.unitId) : undefined;
    if (at) through.push(at);
  }
  return undefined;
}
