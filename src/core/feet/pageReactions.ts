import { type Trigger, isFigure } from '../addressing';
import { heardOf, routeTo } from '../meaning';
import type { Bytes } from '../midi';
import { feetOf, indexShow, type Doing, type Feet, type FootPedal, type Reaction, type Show, type Unit } from '../show';
import { callOf } from './calls';
import { entryOn, switchSends } from './switchSends';

/** What a switch of a page has the computer do: null for what the controller does by itself. */
function reactionOf(does: Doing): Reaction['does'] | null {
  switch (does.kind) {
    case 'tone':
    case 'move':
    case 'session':
    case 'song':
    case 'sample':
    case 'turn':
    case 'part':
      return does;
    case 'control':
      return {
        kind: 'control',
        unitId: does.unitId,
        controlId: does.controlId,
        curve: { from: does.value, to: does.value, bend: 'straight' },
      };
    case 'message':
    case 'page':
      return null;
  }
}

/** A switch of a page that the computer hears. */
export interface HeardSwitch {
  readonly unitId: string;
  readonly pageId: string;
  readonly switchId: string;
  readonly trigger: Trigger;
}

interface Made {
  readonly units: Show['units'];
  readonly ports: Show['ports'];
  readonly reactions: readonly Reaction[];
  readonly places: ReadonlyMap<string, HeardSwitch>;
}

const kept = new WeakMap<Show['feet'], Made>();
const NONE: Made = { units: [], ports: [], reactions: [], places: new Map() };

function make(show: Show): Made {
  if (show.feet.length === 0) return NONE;
  const known = kept.get(show.feet);
  if (known && known.units === show.units && known.ports === show.ports) return known;
  const places = new Map<string, HeardSwitch>();
  const reactions = show.feet.flatMap((feet) => {
    const unit = indexShow(show).units.get(feet.id);
    return unit ? [...switchReactions(show, unit, feet, places), ...pedalReactions(show, unit, feet)] : [];
  });
  const found = { units: show.units, ports: show.ports, reactions, places };
  kept.set(show.feet, found);
  return found;
}

/**
 * What the computer does with what the pages of foot controllers send, as reactions: they follow from the pages and are stored
 * nowhere. They come behind those of the show, so that one of these can be put in their way.
 */
export const pageReactions = (show: Show): readonly Reaction[] => make(show).reactions;

/** The switch of a page that a reaction of `pageReactions` is for. */
export const heardSwitch = (show: Show, reactionId: string): HeardSwitch | undefined =>
  make(show).places.get(reactionId);

/**
 * What else a switch sends that the computer heard: for units that are not behind the computer then. It is known what was meant,
 * so that it is passed over. What waits for the foot to leave the switch is among it.
 */
export function echoesOf(show: Show, { unitId, pageId, switchId, trigger }: HeardSwitch): readonly Bytes[] {
  const { sends } = switchSends(show, unitId, pageId, switchId);
  const ownCall = (t: Trigger): boolean => sends.find((s) => s.trigger === t)?.messages[0]?.doing === null;
  return sends
    .filter((s) => s.trigger === trigger || (trigger === 'press' && s.trigger === 'release' && !ownCall('release')))
    .flatMap((s) => s.messages.filter((m) => m.doing !== null).map((m) => m.bytes));
}

/** All that what arrives is held against, in its order. */
export const allReactions = (show: Show): readonly Reaction[] =>
  show.feet.length === 0 ? show.reactions : joined(show.reactions, pageReactions(show));

const joins = new WeakMap<readonly Reaction[], WeakMap<readonly Reaction[], readonly Reaction[]>>();

function joined(own: readonly Reaction[], ofPages: readonly Reaction[]): readonly Reaction[] {
  let made = joins.get(own);
  if (!made) joins.set(own, (made = new WeakMap()));
  let both = made.get(ofPages);
  if (!both) made.set(ofPages, (both = [...own, ...ofPages]));
  return both;
}

function switchReactions(show: Show, unit: Unit, feet: Feet, places: Map<string, HeardSwitch>): Reaction[] {
  const { controller } = unit.profile;
  if (!controller || !unit.returns || !feet.calls) return [];
  const { portId } = unit.returns;
  return feetOf(show, unit.id).pages.flatMap((page) => {
    const index = indexShow(show).slots(unit.id).get(page.id)?.index;
    if (index === undefined) return [];
    return controller.switches.flatMap(({ id: switchId }, place) => {
      const doings = entryOn(feet, page, switchId)?.doings ?? [];
      return controller.triggers.flatMap((trigger): Reaction[] => {
        const heard = doings.flatMap(({ on, does }) => (on === trigger ? (reactionOf(does) ?? []) : []));
        const call =
          heard.length > 0 ? callOf(unit.profile, controller, { page: index, switch: place, trigger }) : null;
        const hears = call && hearsOf(call, portId);
        if (!hears) return [];
        return heard.map((does, i): Reaction => {
          const id = `${unit.id}/${page.id}/${switchId}/${trigger}/${i}`;
          places.set(id, { unitId: unit.id, pageId: page.id, switchId, trigger });
          // All that the switch does is done before what it sent goes no further.
          return { id, name: '', on: true, songId: null, hears, swallow: i === heard.length - 1, does };
        });
      });
    });
  });
}

function hearsOf(call: readonly number[], portId: string): Reaction['hears'] | null {
  const heard = heardOf(call);
  if (!heard) return null;
  const { kind, channel, number, value } = heard;
  // Of a control the value tells switches apart; of a note the number does, however hard it is struck.
  const exact = kind === 'control' && value !== null;
  return { portId, kind, channel, number, low: exact ? value : kind === 'note' ? 1 : 0, high: exact ? value : 127 };
}

/** A pedal sends what the unit itself would take: with the computer between, that goes to the unit. */
function pedalReactions(show: Show, unit: Unit, feet: Feet): Reaction[] {
  if (!unit.returns || !unit.profile.controller) return [];
  const found = new Map<string, Reaction>();
  for (const { does } of [feet.everywhere, ...feet.pages].flatMap((layer) => layer.pedals)) {
    const reaction = pedalReaction(show, unit.id, unit.returns.portId, does);
    if (reaction) found.set(reaction.id, reaction);
  }
  return [...found.values()];
}

function pedalReaction(show: Show, from: string, portId: string, does: FootPedal['does']): Reaction | null {
  if (does.kind !== 'control') return null;
  const target = indexShow(show).units.get(does.unitId);
  const encoding = target?.profile.controls.find((c) => c.id === does.controlId)?.encoding;
  const route = target && routeTo(show, target);
  if (!target || !route || !encoding || !isFigure(encoding)) return null;
  const { number } = encoding;
  const base = { id: `${from}/pedal/${target.id}/${number}`, name: '', on: true, songId: null, swallow: true };
  // A figure on a straight line is known as the control that it is; any other goes on as it came.
  if (encoding.curve !== 'linear') {
    const hears = { portId, kind: 'control', channel: target.channel, number, low: 0, high: 127 } as const;
    const curve = { from: 0, to: 127, bend: 'straight' } as const;
    return { ...base, hears, does: { kind: 'message', portId: route.portId, channel: null, number: null, curve } };
  }
  const [low, high] = [Math.min(encoding.from, encoding.to), Math.max(encoding.from, encoding.to)];
  const ends = encoding.from <= encoding.to ? [encoding.low, encoding.high] : [encoding.high, encoding.low];
  const curve = { from: ends[0]!, to: ends[1]!, bend: 'straight' } as const;
  const hears = { portId, kind: 'control', channel: target.channel, number, low, high } as const;
  return { ...base, hears, does: { kind: 'control', unitId: target.id, controlId: does.controlId, curve } };
}
