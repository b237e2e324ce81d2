import { heardSwitch, pageReactions } from '../../feet';
import { heardOf, NOT_REACTED, react } from '../../meaning';
import { controlChange, noteOn, programChange, type Bytes } from '../../midi';
import { indexShow, type Reaction } from '../../show';
import { finding, type Check, type Finding } from '../finding';
import { inFeet, onFloor } from './controllers';

/** The message that a switch is called by. */
function callBytes({ hears }: Reaction): Bytes {
  const channel = hears.channel ?? 1;
  const number = hears.number ?? 0;
  if (hears.kind === 'control') return controlChange(channel, number, hears.high);
  return hears.kind === 'note' ? noteOn(channel, number, 127) : programChange(channel, number);
}

/** A reaction of the show that takes the message by which the computer tells a switch: what the switch says is not done. */
export const callsTaken: Check = (show) => {
  if (show.reactions.length === 0) return [];
  const relayed = new Set<string>();
  return pageReactions(show).flatMap((own): Finding[] => {
    const heard = heardSwitch(show, own.id);
    const bytes = callBytes(own);
    if (!heard || !heardOf(bytes)) return [];
    const { steps } = react(show, NOT_REACTED, { songId: null, at: 0 }, own.hears.portId!, bytes);
    const taker = steps.find((s) => s.miss === null && s.stopped);
    // A controller has hundreds of switches: a reaction is told once, with the first.
    if (!taker || relayed.has(taker.reactionId)) return [];
    relayed.add(taker.reactionId);
    const unit = indexShow(show).units.get(heard.unitId)!;
    const at = onFloor(show, unit, heard.pageId, heard.switchId);
    const reaction = show.reactions.findIndex((r) => r.id === taker.reactionId) + 1;
    return [finding('feet.call-taken', 'warning', inFeet(unit.id, heard.pageId, heard.switchId), { ...at, reaction })];
  });
};
