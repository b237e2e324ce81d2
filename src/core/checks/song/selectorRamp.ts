import { isContinuous, keepsOf } from '../../addressing';
import { selectorRuns } from '../../meaning';
import { decodeMessage, fromHex } from '../../midi';
import { remember, understand } from '../../rig';
import { indexShow, removeCues, type Cue, type Unit } from '../../show';
import { formatPosition, type Ticks } from '../../time';
import { finding, type Finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** A selector's step that a cue makes: by name, or as bytes that mean it. */
interface Step {
  readonly at: Ticks;
  readonly value: number;
  readonly cue: Cue;
}

interface Line {
  readonly unit: Unit;
  readonly what: string;
  readonly steps: Step[];
}

/** Cues that run through the options of a selector one after the other: the unit steps through all of them. The fix leaves the last. */
export const selectorRamp: SongCheck = (facts) => {
  const { show, song, time } = facts;
  const { tones, units } = indexShow(show);
  const lines = new Map<string, Line>();
  const memories = new Map<string, Map<number, number>>();
  const add = (unit: Unit, key: string, what: string, cue: Cue, value: number): void => {
    const line = lines.get(`${unit.id}\n${key}`);
    if (line) line.steps.push({ at: cue.at, value, cue });
    else lines.set(`${unit.id}\n${key}`, { unit, what, steps: [{ at: cue.at, value, cue }] });
  };
  for (const cue of song.cues.toSorted((a, b) => a.at - b.at)) {
    const { action } = cue;
    if (cue.muted || action.kind === 'move') continue;
    if (action.kind === 'tone') {
      const [part, more] = tones.get(action.toneId)?.parts ?? [];
      const unit = part && units.get(part.unitId);
      // A tone that says more than a variant is a sound that somebody wants.
      const step = !more && part?.slotId === null && part.controls.length + part.effects.length === 0;
      if (unit && step && part.variant !== null) add(unit, '', unit.profile.variants!.word, cue, part.variant);
      continue;
    }
    const unit = units.get(action.unitId);
    if (!unit) continue;
    if (action.kind === 'control') {
      const control = unit.profile.controls.find((c) => c.id === action.controlId);
      if (control && isSelector(control.encoding)) add(unit, control.id, control.name, cue, action.value);
      continue;
    }
    const message = decodeMessage(fromHex(action.bytes)!);
    if (!message) continue;
    let memory = memories.get(unit.id);
    if (!memory) memories.set(unit.id, (memory = new Map<number, number>()));
    const { variant, controls } = understand(unit.profile, message, memory);
    remember(memory, message);
    if (variant !== undefined) add(unit, '', unit.profile.variants!.word, cue, variant);
    for (const [control, value] of controls) {
      if (isSelector(control.encoding)) add(unit, control.id, control.name, cue, value);
    }
  }
  const found: Finding[] = [];
  for (const { unit, what, steps } of lines.values()) {
    for (const run of selectorRuns(steps)) {
      const [first, last] = [run[0]!.cue, run.at(-1)!.cue];
      const where = (cue: Cue): string => formatPosition(time.bars, cue.at, song.bars);
      const data = { song: song.title, unit: unit.name, control: what, from: where(first), to: where(last) };
      const passed = new Set(run.slice(0, -1).map((s) => s.cue.id));
      const place = inSong(facts, first.at, { cueId: first.id });
      found.push(finding('song.selector-ramp', 'error', place, data, removeCues(show, song.id, passed)));
    }
  }
  return found;
};

const isSelector = (encoding: Unit['profile']['controls'][number]['encoding']): boolean =>
  !isContinuous(encoding) && keepsOf(encoding) === 'value';
