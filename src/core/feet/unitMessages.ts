import { encodeValue, keepsOf, type Trigger } from '../addressing';
import { catchUpSends, stateAt } from '../compile';
import { contextOf } from '../meaning';
import { fromHex, wholeMessages, type Bytes } from '../midi';
import { indexShow, newSong, type Doing, type Show, type Tone } from '../show';

/** A message that a switch sends to a unit itself. */
export interface UnitMessage {
  /** Null for bytes as they stand. */
  readonly unitId: string | null;
  readonly bytes: Bytes;
  /** It has to wait until presets that the switch called are loaded: its unit takes nothing before. */
  readonly waits: boolean;
}

/** What a switch does to the units by itself, and the units that it cannot do it to. */
export interface UnitMessages {
  readonly messages: readonly UnitMessage[];
  /** Units that no cable leads to when the computer is gone. */
  readonly unreached: readonly string[];
  /** Controls that only turn over, from a state that a switch cannot know: `unitId/controlId`. */
  readonly unknown: readonly string[];
}

const NOTHING: UnitMessages = { messages: [], unreached: [], unknown: [] };

/**
 * The messages with which a switch does something to the units itself, whatever they are on. `boat` is the show as it is wired
 * then. A switch cannot know what units are on: everything that a tone says is sent.
 */
export function unitMessages(boat: Show, does: Doing): UnitMessages {
  switch (does.kind) {
    case 'tone':
      return toneMessages(boat, does.toneId);
    case 'move': {
      const steps = boat.moves.find((m) => m.id === does.moveId)?.steps ?? [];
      return together(steps.map((s) => controlMessages(boat, s)));
    }
    case 'control':
      return controlMessages(boat, does);
    case 'message':
      return {
        ...NOTHING,
        messages: (wholeMessages(fromHex(does.bytes) ?? []) ?? []).map((bytes) => ({
          unitId: null,
          bytes,
          waits: false,
        })),
      };
    case 'session':
    case 'song':
    case 'sample':
    case 'turn':
    case 'part':
    case 'page':
      return NOTHING;
  }
}

const together = (all: readonly UnitMessages[]): UnitMessages => ({
  messages: all.flatMap((a) => a.messages),
  unreached: [...new Set(all.flatMap((a) => a.unreached))],
  unknown: all.flatMap((a) => a.unknown),
});

function controlMessages(
  boat: Show,
  { unitId, controlId, value }: { readonly unitId: string; readonly controlId: string; readonly value: number },
): UnitMessages {
  const unit = indexShow(boat).units.get(unitId);
  const control = unit?.profile.controls.find((c) => c.id === controlId);
  if (!unit || !control) return NOTHING;
  if (!contextOf(boat).paths.has(unitId)) return { ...NOTHING, unreached: [unitId] };
  // Of a control that is tapped the value is how many taps: a foot taps each by itself.
  const messages = encodeValue(control.encoding, unit.channel, control.encoding.kind === 'tap' ? 1 : value);
  return { ...NOTHING, messages: messages.map((bytes) => ({ unitId, bytes, waits: false })) };
}

/** Made once a tone, for as long as the units are the same. */
const kept = new WeakMap<Tone, { readonly units: Show['units']; readonly found: UnitMessages }>();

function toneMessages(boat: Show, toneId: string): UnitMessages {
  const tone = indexShow(boat).tones.get(toneId);
  if (!tone) return NOTHING;
  const known = kept.get(tone);
  if (known?.units === boat.units) return known.found;
  const found = makeToneMessages(boat, tone);
  kept.set(tone, { units: boat.units, found });
  return found;
}

function makeToneMessages(boat: Show, tone: Tone): UnitMessages {
  const { paths, units } = contextOf(boat);
  const state = stateAt(boat, { ...newSong('tone', 'Tone', { bars: 1 }), openingToneId: tone.id }, 0);
  const first: UnitMessage[] = [];
  const later: UnitMessage[] = [];
  for (const { unit, turns } of catchUpSends(boat, {}, state)) {
    const sends = turns.flat();
    // What comes while such a unit settles is lost: it has to be sent when the foot leaves the switch.
    const deaf = unit.profile.whileSettling === 'ignore' && unit.pace.settle > 0;
    let recalled = false;
    for (const { kind, bytes } of sends) {
      const message = { unitId: unit.id, bytes, waits: recalled && deaf };
      if (recalled) later.push(message);
      else first.push(message);
      recalled ||= kind === 'recall';
    }
  }
  const unreached = tone.parts
    .map((p) => p.unitId)
    .filter((id) => !paths.has(id) && !isTold(boat, id, state[id]?.slot ?? null));
  const unknown = tone.parts.flatMap(({ unitId, controls }) =>
    controls
      .filter(({ controlId }) => {
        const encoding = units.get(unitId)?.profile.controls.find((c) => c.id === controlId)?.encoding;
        return encoding !== undefined && keepsOf(encoding) === 'flip' && !setByPreset(boat, unitId, controlId, state);
      })
      .map((c) => `${unitId}/${c.controlId}`),
  );
  return { messages: [...first, ...later], unreached, unknown };
}

/** Whether the preset that a tone calls brings a control along, as somebody wrote it down. */
function setByPreset(boat: Show, unitId: string, controlId: string, state: ReturnType<typeof stateAt>): boolean {
  const unit = indexShow(boat).units.get(unitId);
  const slot = unit?.slots.find((s) => s.index === state[unitId]?.slot);
  return (
    unit?.profile.recallLoads.controls === true && slot?.startControls.some((c) => c.controlId === controlId) === true
  );
}

/** Whether a unit that no cable leads to is brought where a tone wants it by the rules of another. */
function isTold(boat: Show, unitId: string, slot: number | null): boolean {
  return slot !== null && contextOf(boat).spec.units.some((u) => u.relays.some((r) => r.toUnit === unitId));
}

/** The trigger on which messages that have to wait leave: when the foot leaves the switch. */
export const WAITS_FOR: Trigger = 'release';
