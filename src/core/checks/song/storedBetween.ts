import { compileSong } from '../../compile';
import { addTo } from '../../groups';
import { labelOf } from '../../addressing';
import { partAims, rigSpec, songWants } from '../../meaning';
import type { UnitState } from '../../rig';
import { applyEdit, indexShow, setSlotField, type Edit, type Show, type Song, type Unit } from '../../show';
import { proofRun, lastAtOrBefore, type DryRun } from '../../simulate';
import { formatPosition, millisToMicros, type Micros } from '../../time';
import { finding, type Finding } from '../finding';
import type { SongFacts } from './facts';
import { inSong, type SongCheck } from './songCheck';

/** What sounds for less than this between two others is not heard as a sound of its own. */
const HEARD: Micros = millisToMicros(10);

/** Each fix is tried by compiling the song: so many messages at most. */
const TRIED_MESSAGES = 6000;

/** A preset that sounded in another variant than its cue wants before that one was there. */
interface Between {
  readonly cueId: string;
  readonly unitId: string;
  readonly due: Micros;
  readonly lasts: Micros;
  /** In what it sounded: a variant, or what the preset stores. */
  readonly variant: UnitState['variant'];
  readonly wanted: number;
  readonly slot: number;
}

/**
 * A preset that loads and sounds in its stored variant until the one that the cue wants has been taken:
 * the unit settles for longer than it loads, or the cable is busy.
 */
export const storedBetween: SongCheck = (facts) => {
  const { show, song, time, run } = facts;
  if (!run) return [];
  const { units } = indexShow(show);
  let left = TRIED_MESSAGES;
  const moments = new Map(facts.passed.map((p) => [p.moment.id, p.moment]));
  const cues = new Set(song.cues.map((c) => c.id));
  return betweens(show, song, run).map((between): Finding => {
    const { cueId, unitId, lasts, variant, wanted, slot } = between;
    const unit = units.get(unitId)!;
    const { word, names } = unit.profile.variants!;
    const moment = moments.get(cueId)!;
    const at = formatPosition(time.bars, Math.min(moment.at, time.end - 1), song.bars);
    const where = cues.has(cueId) ? { cueId } : {};
    const data = {
      song: song.title,
      at,
      unit: unit.name,
      millis: lasts / 1000,
      word,
      from: typeof variant === 'number' ? (names[variant] ?? null) : null,
      to: names[wanted] ?? String(wanted + 1),
      preset: labelOf(unit.profile.plan, slot),
    };
    const tries = left >= run.compiled.events.length;
    if (tries) left -= run.compiled.events.length;
    const fix = tries ? storedWith(facts, unit, between) : null;
    return finding('song.stored-between', 'warning', inSong(facts, moment.at, where), data, fix);
  });
};

type Run = NonNullable<SongFacts['run']>;

function betweens(show: Show, song: Song, { compiled, dry }: Run): Between[] {
  const { tones, units } = indexShow(show);
  const states = new Map<string, { readonly at: Micros; readonly state: UnitState }[]>();
  const loaded = new Map<string, Set<Micros>>();
  for (const entry of dry.trace) {
    if (entry.kind === 'changed' && units.get(entry.unitId)?.profile.variants) addTo(states, entry.unitId, entry);
    if (entry.kind !== 'loading') continue;
    if (!loaded.has(entry.unitId)) loaded.set(entry.unitId, new Set());
    loaded.get(entry.unitId)!.add(entry.load.until);
  }
  const sent = new Map<string, Micros>();
  for (const { cueId, unitId, at } of compiled.events) {
    const key = `${cueId} ${unitId}`;
    if (!sent.has(key)) sent.set(key, at);
  }
  const toneOf = new Map(song.cues.flatMap((c) => (c.action.kind === 'tone' ? [[c.id, c.action.toneId]] : [])));
  const found: Between[] = [];
  const aims = new Map<string, ReturnType<typeof partAims>>();
  for (const { cueId, unitId, due, offset } of dry.verdicts) {
    const tone = tones.get(toneOf.get(cueId) ?? '');
    if (tone && !aims.has(tone.id)) aims.set(tone.id, partAims(show, tone));
    const aim = tone && aims.get(tone.id)!.get(unitId);
    if (offset === null || aim?.slot === undefined || aim.variant === undefined) continue;
    const line = states.get(unitId) ?? [];
    // From where all is there back to where the preset was.
    const whole = lastAtOrBefore(line, due + offset + 1);
    let k = whole;
    while (k >= 0 && line[k]!.state.slot === aim.slot && !loaded.get(unitId)?.has(line[k]!.at)) k -= 1;
    const preset = line[k];
    const first = sent.get(`${cueId} ${unitId}`);
    // Nothing was loaded for this cue: the preset was on.
    if (!preset || first === undefined || preset.at < first) continue;
    if (preset.state.slot !== aim.slot || preset.state.variant === aim.variant) continue;
    const there = line.slice(k, whole + 1).find((i) => i.state.variant === aim.variant);
    const lasts = there ? there.at - preset.at : 0;
    if (lasts < HEARD) continue;
    const { variant } = preset.state;
    found.push({ cueId, unitId, due, lasts, variant, wanted: aim.variant, slot: aim.slot });
  }
  return found;
}

/**
 * The preset stored in the wanted variant: nothing has to be sent behind it then. Null where other tones want
 * it in another one, and where it does not help.
 */
function storedWith({ show, song, run }: SongFacts, unit: Unit, between: Between): Edit | null {
  const slot = unit.slots.find((s) => s.index === between.slot);
  const parts = show.tones.flatMap((t) => t.parts.filter((p) => p.unitId === unit.id && p.slotId === slot?.id));
  const isAlone = parts.every((p) => p.variant === between.wanted);
  if (!slot || !isAlone || !unit.profile.recallLoads.variant) return null;
  const edit = setSlotField(show, unit.id, slot.index, 'startVariant', between.wanted, slot.id);
  if (!edit) return null;
  const after = applyEdit(show, edit);
  const changed = indexShow(after).songs.get(song.id)!;
  const compiled = compileSong(after, changed);
  const dry = proofRun(rigSpec(after), compiled.events, songWants(after, changed), after.tolerance);
  const misses = (d: DryRun): number => d.verdicts.filter((v) => v.outcome === 'late' || v.outcome === 'never').length;
  const left = betweens(after, changed, { compiled, dry });
  const isMended = !left.some((b) => b.cueId === between.cueId && b.unitId === between.unitId);
  return isMended && misses(dry) <= misses(run!.dry) ? edit : null;
}
