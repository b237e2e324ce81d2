import type { Control, Profile } from '../../addressing';
import { partAims } from '../../meaning';
import { sameControl, type Stored, type UnitState } from '../../rig';
import { indexShow, setTonePart, type Tone } from '../../show';
import { formatPosition } from '../../time';
import { finding, type Finding } from '../finding';
import type { Passed, SongFacts } from './facts';
import { inSong, type SongCheck } from './songCheck';

/**
 * A tone that sounds otherwise in one place than in another, because it leaves something as it
 * is that an earlier tone has changed. The fix has the tone say it as in its first place.
 */
export const toneDiffers: SongCheck = (facts) => {
  const { show, song, time, passed } = facts;
  const { tones, units } = indexShow(show);
  const first = new Map<string, Passed>();
  const relayed = new Set<string>();
  const found: Finding[] = [];
  for (const here of passed) {
    const { action } = here.moment;
    const tone = action.kind === 'tone' ? tones.get(action.toneId) : undefined;
    if (!tone) continue;
    const before = first.get(tone.id);
    if (!before) {
      first.set(tone.id, here);
      continue;
    }
    for (const [unitId, aim] of partAims(show, tone)) {
      const unit = units.get(unitId)!;
      const [a, b] = [before.after[unitId], here.after[unitId]];
      if (!a || !b || a.slot !== b.slot) continue;
      for (const control of unit.profile.controls) {
        const key = `${tone.id} ${unitId} ${control.id}`;
        if (aim.controls[control.id] !== undefined || relayed.has(key)) continue;
        const pair = leftOtherwise(unit.profile, control, a, b);
        if (!pair) continue;
        relayed.add(key);
        const where = (p: Passed): string =>
          formatPosition(time.bars, Math.min(Math.max(0, p.moment.at), time.end - 1), song.bars);
        const data = {
          song: song.title,
          at: where(here),
          first: where(before),
          tone: tone.name,
          unit: unit.name,
          control: control.name,
          from: whoLeft(facts, here, unitId, control.id),
        };
        const fix = withValue(facts, tone, unitId, control.id, pair);
        const what = here.moment.source === 'cue' ? { cueId: here.moment.id } : {};
        found.push(finding('song.tone-differs', 'warning', inSong(facts, here.moment.at, what), data, fix));
      }
    }
  }
  return found;
};

type Value = number | Stored | undefined;

/** A control's two values, where they are not the same; what is not known is taken to rest. */
function leftOtherwise(
  profile: Profile,
  control: Control,
  a: UnitState,
  b: UnitState,
): readonly [first: Value, second: Value] | undefined {
  const [x, y] = [a.controls[control.id], b.controls[control.id]];
  if (sameControl(profile, control.id, x, y)) return undefined;
  const known = x ?? y;
  if (x === undefined || y === undefined) {
    // At rest is where nobody moved it.
    if (typeof known !== 'number' || control.rest === null || sameControl(profile, control.id, known, control.rest)) {
      return undefined;
    }
  }
  return [x, y];
}

/** The tone that left it so: the last before a place after which it is otherwise than before. */
export function whoLeft({ show, passed }: SongFacts, here: Passed, unitId: string, controlId: string): string {
  const { tones } = indexShow(show);
  for (let i = passed.indexOf(here); i >= 0; i--) {
    const { before, after, moment } = passed[i]!;
    if (before[unitId]?.controls[controlId] === after[unitId]?.controls[controlId]) continue;
    return moment.action.kind === 'tone' ? (tones.get(moment.action.toneId)?.name ?? '') : '';
  }
  return '';
}

function withValue(
  { show }: SongFacts,
  tone: Tone,
  unitId: string,
  controlId: string,
  [first]: readonly [Value, Value],
): Finding['fix'] {
  const unit = indexShow(show).units.get(unitId)!;
  const control = unit.profile.controls.find((c) => c.id === controlId)!;
  const value = typeof first === 'number' ? first : control.rest;
  const part = tone.parts.find((p) => p.unitId === unitId);
  if (value === null || !part) return null;
  const controls = [...part.controls.filter((c) => c.controlId !== controlId), { controlId, value }];
  return setTonePart(show, tone.id, unitId, { ...part, controls });
}
