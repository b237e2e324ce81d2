import { isOnOff } from '../../addressing';
import { indexShow, putSweep, removeCues, type Cue, type Song, type Sweep } from '../../show';
import { sweepValue } from '../../meaning';
import { TICKS_PER_QUARTER, formatPosition } from '../../time';
import { finding, type Finding } from '../finding';
import type { SongFacts } from './facts';
import { inSong, type SongCheck } from './songCheck';

const heard = (song: Song): Sweep[] => song.sweeps.filter((s) => !s.muted);

const controlOf = ({ show }: SongFacts, sweep: Sweep) =>
  indexShow(show)
    .units.get(sweep.unitId)
    ?.profile.controls.find((c) => c.id === sweep.controlId);

/** Two sweeps of one control at once: it jumps between them. The fix ends the first where the second begins. */
export const sweepsOverlap: SongCheck = (facts) => {
  const { show, song, time } = facts;
  const found: Finding[] = [];
  for (const [i, second] of heard(song).entries()) {
    for (const first of heard(song).slice(0, i)) {
      const same = first.unitId === second.unitId && first.controlId === second.controlId;
      const [a, b] = first.from <= second.from ? [first, second] : [second, first];
      const control = controlOf(facts, a);
      if (!same || !control || b.from >= a.to) continue;
      const unit = indexShow(show).units.get(a.unitId)!.name;
      const data = { song: song.title, at: formatPosition(time.bars, b.from, song.bars), unit, control: control.name };
      const fix = b.from > a.from ? putSweep(show, song.id, { ...a, to: b.from }) : null;
      found.push(finding('song.sweeps-overlap', 'error', inSong(facts, b.from, { sweepId: b.id }), data, fix));
    }
  }
  return found;
};

/** A sweep that leaves its control away from its rest, with nothing after it that sets it. */
export const sweepOffRest: SongCheck = (facts) => {
  const { show, song, time, passed } = facts;
  return heard(song).flatMap((sweep) => {
    const control = controlOf(facts, sweep);
    const rest = control?.rest ?? null;
    if (!control || rest === null || sweep.after === 'rest') return [];
    if (Math.abs(sweepValue(sweep, sweep.to) - rest) < 1e-9) return [];
    const later =
      heard(song).some(
        (s) => s !== sweep && s.unitId === sweep.unitId && s.controlId === control.id && s.from >= sweep.to,
      ) ||
      passed.some(({ moment, before, after }) => {
        const [a, b] = [before[sweep.unitId]?.controls[control.id], after[sweep.unitId]?.controls[control.id]];
        return moment.at >= sweep.to && a !== b;
      });
    if (later) return [];
    const unit = indexShow(show).units.get(sweep.unitId)!.name;
    const data = { song: song.title, at: formatPosition(time.bars, sweep.to, song.bars), unit, control: control.name };
    const fix = putSweep(show, song.id, { ...sweep, after: 'rest' });
    return [finding('song.off-rest', 'warning', inSong(facts, sweep.to, { sweepId: sweep.id }), data, fix)];
  });
};

/** Cues of a switch this near to a sweep's start belong to it. */
const NEAR = TICKS_PER_QUARTER;

/** A switch of the same unit that a cue turns on where a sweep begins, and that nothing turns off afterwards. */
export const effectLeftOn: SongCheck = (facts) => {
  const { show, song, time } = facts;
  return heard(song).flatMap((sweep) => {
    if (sweep.switchId !== null) return [];
    const unit = indexShow(show).units.get(sweep.unitId);
    const on = song.cues.find(
      (c) => switchOf(c, unit?.id)?.value === 1 && !c.muted && Math.abs(c.at - sweep.from) <= NEAR,
    );
    const set = on && switchOf(on, unit?.id);
    const control = unit?.profile.controls.find((c) => c.id === set?.controlId);
    if (!unit || !on || !control || !isOnOff(control.encoding)) return [];
    const off = song.cues.some((c) => {
      const other = switchOf(c, unit.id);
      return other?.controlId === control.id && other.value === 0 && c.at > on.at;
    });
    if (off) return [];
    const data = {
      song: song.title,
      at: formatPosition(time.bars, sweep.to, song.bars),
      unit: unit.name,
      control: control.name,
    };
    const removed = removeCues(show, song.id, new Set([on.id]));
    const taken = putSweep(show, song.id, { ...sweep, switchId: control.id });
    const fix = removed && taken ? ({ kind: 'group', edits: [removed, taken] } as const) : null;
    return [finding('song.effect-left', 'warning', inSong(facts, sweep.to, { sweepId: sweep.id }), data, fix)];
  });
};

function switchOf({ action }: Cue, unitId: string | undefined) {
  return action.kind === 'control' && action.unitId === unitId ? action : undefined;
}
