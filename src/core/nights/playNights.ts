import { compileSong } from '../compile';
import { rigSpec, songWants } from '../meaning';
import type { TimedBytes } from '../midi';
import type { RigSpec, Wanted } from '../rig';
import type { Show, Song } from '../show';
import { dryRun, type DryRun, type Reason, type Verdict } from '../simulate';
import type { Micros } from '../time';
import { nightLeaves, nightTiming, type NightName } from './night';

/** A change that missed on a night. */
export interface NightMiss {
  readonly night: number;
  readonly unitId: string;
  readonly outcome: Exclude<Verdict['outcome'], 'on-time'>;
  /** From due until it was there, in microseconds; null where it never was. */
  readonly offset: Micros | null;
  readonly reason: Reason;
}

/** How one cue fared over nights. */
export interface CueNights {
  /** On how many nights all of it landed. */
  readonly landed: number;
  /** The first nights on which it did not, with the unit that was worst. */
  readonly misses: readonly NightMiss[];
  /** When it was there on each unit, as counts of whole milliseconds from due: -3 counts what came 3 to 2 ms before. */
  readonly spread: Readonly<Record<string, Readonly<Record<number, number>>>>;
}

/** How one song fared over nights `from` up to, but without, `to`. */
export interface SongNights {
  readonly songId: string;
  readonly seed: number;
  readonly from: number;
  readonly to: number;
  readonly cues: Readonly<Record<string, CueNights>>;
  /** The nights on which something of the song missed, in order. */
  readonly missed: readonly number[];
}

/** Misses of one cue that are kept: those of the first nights. */
export const KEPT_MISSES = 20;

/** A song made ready to be played on nights. */
interface Ready {
  readonly show: Show;
  readonly song: Song;
  /** As plans reckon with it, and with ports that add nothing: what they add is drawn. */
  readonly rig: RigSpec;
  readonly prompt: RigSpec;
  readonly events: readonly TimedBytes[];
  readonly wants: readonly Wanted[];
}

function readyFor(show: Show, song: Song): Ready {
  const rig = rigSpec(show);
  const prompt = { ...rig, ports: rig.ports.map((port) => ({ ...port, delay: 0 })) };
  return { show, song, rig, prompt, events: compileSong(show, song).events, wants: songWants(show, song) };
}

/** One night of a song, as a dry run: the same whenever it is asked for. */
export const playNight = (show: Show, song: Song, name: NightName): DryRun => onNight(readyFor(show, song), name);

const onNight = ({ show, song, rig, prompt, events, wants }: Ready, name: NightName): DryRun =>
  dryRun(prompt, events, wants, {
    tolerance: show.tolerance,
    planned: rig,
    timing: nightTiming(show, song, name),
    leaves: nightLeaves(show, song, events, name),
  });

/** Plays a song on the nights of a seed, from one up to another, without that one. */
export function playNights(
  show: Show,
  song: Song,
  { seed, from, to }: { readonly seed: number; readonly from: number; readonly to: number },
): SongNights {
  const ready = readyFor(show, song);
  const tally = new Tally(ready.wants);
  for (let night = from; night < to; night++) tally.add(night, onNight(ready, { seed, night }).verdicts);
  return { songId: song.id, seed, from, to, ...tally.done(to - from) };
}

interface CueTally {
  missedOn: number;
  lastMissed: number;
  readonly misses: NightMiss[];
  readonly spread: Record<string, Record<number, number>>;
}

/** Counts what landed, night by night. */
class Tally {
  private readonly cues = new Map<string, CueTally>();
  private readonly missed: number[] = [];

  constructor(wants: readonly Wanted[]) {
    for (const { cueId } of wants) {
      if (!this.cues.has(cueId)) this.cues.set(cueId, { missedOn: 0, lastMissed: -1, misses: [], spread: {} });
    }
  }

  add(night: number, verdicts: readonly Verdict[]): void {
    for (const { cueId, unitId, outcome, offset, reason } of verdicts) {
      const cue = this.cues.get(cueId)!;
      if (offset !== null && reason.kind !== 'already') {
        const spread = (cue.spread[unitId] ??= {});
        const bin = Math.floor(offset / 1000);
        spread[bin] = (spread[bin] ?? 0) + 1;
      }
      if (outcome === 'on-time') continue;
      if (this.missed.at(-1) !== night) this.missed.push(night);
      if (cue.lastMissed !== night) {
        cue.missedOn += 1;
        cue.lastMissed = night;
        if (cue.misses.length < KEPT_MISSES) cue.misses.push({ night, unitId, outcome, offset, reason });
      }
    }
  }

  done(nights: number): Pick<SongNights, 'cues' | 'missed'> {
    const cues = [...this.cues].map(([id, { missedOn, misses, spread }]): [string, CueNights] => [
      id,
      { landed: nights - missedOn, misses, spread },
    ]);
    return { cues: Object.fromEntries(cues), missed: this.missed };
  }
}

/** Two runs of nights of the same song and seed, the second from where the first ends. Throws where they do not meet. */
export function joinNights(a: SongNights, b: SongNights): SongNights {
  if (a.songId !== b.songId || a.seed !== b.seed || a.to !== b.from) {
    throw new Error(
      `nights ${b.from} to ${b.to} of ${b.songId} do not follow nights ${a.from} to ${a.to} of ${a.songId}`,
    );
  }
  const cues: Record<string, CueNights> = {};
  for (const [id, first] of Object.entries(a.cues)) {
    const second = b.cues[id]!;
    cues[id] = {
      landed: first.landed + second.landed,
      misses: [...first.misses, ...second.misses].slice(0, KEPT_MISSES),
      spread: joinSpread(first.spread, second.spread),
    };
  }
  return { ...a, to: b.to, cues, missed: [...a.missed, ...b.missed] };
}

function joinSpread(a: CueNights['spread'], b: CueNights['spread']): CueNights['spread'] {
  const joined: Record<string, Record<number, number>> = {};
  for (const spread of [a, b]) {
    for (const [unitId, bins] of Object.entries(spread)) {
      const into = (joined[unitId] ??= {});
      for (const [bin, count] of Object.entries(bins)) into[Number(bin)] = (into[Number(bin)] ?? 0) + count;
    }
  }
  return joined;
}

/** On how many of so many nights every song landed. */
export function nightsOfSet(songs: readonly Pick<SongNights, 'missed'>[], nights: number): number {
  return nights - new Set(songs.flatMap((s) => s.missed)).size;
}
