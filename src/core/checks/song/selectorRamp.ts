import { isContinuous, keepsOf } from '../../addressing';
import { indexShow, removeCues, type Cue } from '../../show';
import { TICKS_PER_QUARTER, formatPosition } from '../../time';
import { finding, type Finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** So many neighbouring options, no further apart than this, are a ramp drawn through a selector. */
const OPTIONS = 3;
const GAP = TICKS_PER_QUARTER / 4;

/** Cues that run through the options of a selector one after the other: the unit steps through all of them. The fix leaves the last. */
export const selectorRamp: SongCheck = (facts) => {
  const { show, song, time } = facts;
  const { units } = indexShow(show);
  const lines = new Map<string, Cue[]>();
  for (const cue of song.cues) {
    if (cue.muted || cue.action.kind !== 'control') continue;
    const key = `${cue.action.unitId}\n${cue.action.controlId}`;
    const list = lines.get(key);
    if (list) list.push(cue);
    else lines.set(key, [cue]);
  }
  const found: Finding[] = [];
  for (const list of lines.values()) {
    const { action } = list[0]!;
    if (action.kind !== 'control') continue;
    const unit = units.get(action.unitId);
    const control = unit?.profile.controls.find((c) => c.id === action.controlId);
    if (!unit || !control || isContinuous(control.encoding) || keepsOf(control.encoding) !== 'value') continue;
    for (const run of runsOf(list)) {
      const [first, last] = [run[0]!, run.at(-1)!];
      const where = (cue: Cue): string => formatPosition(time.bars, cue.at, song.bars);
      const data = { song: song.title, unit: unit.name, control: control.name, from: where(first), to: where(last) };
      const passed = new Set(run.slice(0, -1).map((c) => c.id));
      const place = inSong(facts, first.at, { cueId: first.id });
      found.push(finding('song.selector-ramp', 'error', place, data, removeCues(show, song.id, passed)));
    }
  }
  return found;
};

const valueOf = ({ action }: Cue): number => (action.kind === 'control' ? action.value : Number.NaN);

function runsOf(list: readonly Cue[]): Cue[][] {
  const runs: Cue[][] = [];
  let way = 0;
  for (const cue of list) {
    const run = runs.at(-1);
    const before = run?.at(-1);
    const step = before ? valueOf(cue) - valueOf(before) : 0;
    const goesOn = before && cue.at - before.at <= GAP && Math.abs(step) === 1 && (run!.length === 1 || step === way);
    if (goesOn) {
      way = step;
      run!.push(cue);
    } else runs.push([cue]);
  }
  return runs.filter((r) => r.length >= OPTIONS);
}
