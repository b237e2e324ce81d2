import type { ShowTonight } from '../tonight';
import { channelDiffers } from './channelDiffers';
import { channelShared } from './channelShared';
import { codeLoop, codeOverlap } from './codeOverlap';
import { exclusiveShared } from './exclusiveShared';
import { FEET_CHECKS } from './feet';
import type { Check, Finding } from './finding';
import { firmwareDiffers } from './firmwareDiffers';
import { flipUnknown } from './flipUnknown';
import { genericName } from './genericName';
import { houseDiffers } from './houseDiffers';
import { launchShared, launchUnheard } from './launches';
import { leftOut } from './leftOut';
import { midiLoop } from './midiLoop';
import { noProgram } from './noProgram';
import { portUnused } from './portUnused';
import { readOnlySlot } from './readOnlySlot';
import { firesItself, reactionUnheard, triggerSounds } from './reactions';
import { relayCycle } from './relayCycle';
import { reservedNumber } from './reservedNumber';
import { slotLost } from './slotLost';
import { socketShared } from './socketShared';
import { stateUndescribed } from './stateUndescribed';
import { toldElsewhere } from './toldElsewhere';
import { twoOnOne } from './twoOnOne';
import { slotUnnamed } from './slotUnnamed';
import { unreachable } from './unreachable';
import { writtenFixes } from './writtenFixes';

/** All checks of the rig, its map and the tones, one a kind of finding. */
export const RIG_CHECKS: readonly Check[] = [
  midiLoop,
  channelDiffers,
  unreachable,
  leftOut,
  socketShared,
  channelShared,
  exclusiveShared,
  relayCycle,
  slotLost,
  noProgram,
  twoOnOne,
  reservedNumber,
  houseDiffers,
  readOnlySlot,
  stateUndescribed,
  flipUnknown,
  toldElsewhere,
  portUnused,
  genericName,
  slotUnnamed,
];

/** All checks of what arrives, and of who answered. */
export const NIGHT_CHECKS: readonly Check[] = [
  firmwareDiffers,
  launchShared,
  launchUnheard,
  codeOverlap,
  codeLoop,
  firesItself,
  triggerSounds,
  reactionUnheard,
];

const ORDER = { error: 0, warning: 1, note: 2 } as const;

const made = new WeakMap<ShowTonight, readonly Finding[]>();

/** Everything that the checks have to say of a rig, the gravest first. Made once a show: many views ask for it. */
export function checkRig(show: ShowTonight): readonly Finding[] {
  let found = made.get(show);
  if (!found) {
    found = writtenFixes(
      show,
      [...RIG_CHECKS, ...NIGHT_CHECKS, ...FEET_CHECKS].flatMap((check) => check(show)),
    ).sort((a, b) => ORDER[a.severity] - ORDER[b.severity]);
    made.set(show, found);
  }
  return found;
}
