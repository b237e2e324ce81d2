import {
  NO_CODE,
  codePlace,
  codeText,
  frameMicros,
  hearCode,
  isSteady,
  isWild,
  isWound,
  labelOf,
  runsBackwards,
  type FollowedCode,
} from '../core/clock';
import { codeRanges, type CodeRange } from '../core/meaning';
import type { Bytes } from '../core/midi';
import { indexShow, songTime, ticksAt, type Show } from '../core/show';
import type { Micros } from '../core/time';
import { report, type Command } from './commands';
import type { Session } from './sessionState';

/** What is known of the time code that arrives. */
export interface CodeNews {
  /** As it is written, with its rate. */
  readonly text: string;
  readonly rate: string;
  /** It runs, stands, is silent while it was to run, runs backwards, or at no speed to play by. */
  readonly how: 'runs' | 'stands' | 'lost' | 'backwards' | 'wound';
}

/** A song begins so long before its place in the code: what it sends ahead has room. */
const AHEAD: Micros = 6_000_000;
/** A song that begins in its midst begins so much further on: meanwhile the rig is brought there. */
const BRINGING: Micros = 400_000;
/** So near its end a song does not begin any more. */
const NO_MORE: Micros = 500_000;
/** Code that says another place by more than this was moved; less than that is its shaking. */
const MOVED: Micros = 60_000;
/** Without code for so long it is said that it is gone. What plays goes on. */
const GONE: Micros = 2_000_000;

/** Time code that arrives, and the songs of the set that are where it is. */
export class CodeChase {
  private code: FollowedCode = NO_CODE;
  private lost = false;
  private backwards = false;
  private wild = false;
  private rateSaid: string | null = null;
  /** Clock time at which the code would have been at midnight, when it was followed last. */
  private midnight: Micros | null = null;
  /** What the song that plays was begun by. */
  private leads: CodeRange | null = null;

  /** Takes a message of time code; false for any other. */
  hear(at: Micros, bytes: Bytes): boolean {
    const code = hearCode(this.code, at, bytes);
    if (!code) return false;
    this.code = code;
    return true;
  }

  /** Whether code runs just now: whoever stops by hand wants it no longer. */
  isRunning(now: Micros): boolean {
    return now - this.code.heard < GONE && codePlace(this.code) !== null;
  }

  /** Nothing that it says is followed any more; where it is goes on being known. */
  letGo(): void {
    this.leads = null;
    this.midnight = null;
  }

  /** What has the song be where the code is. */
  follow(session: Session, now: Micros): readonly Command[] {
    const { show } = session;
    if (!show || show.timeCode.portId === null || !session.isLed) return [];
    const { rate, standing, heard } = this.code;
    if (rate === null) return [];
    const said: Command[] = [];
    if (this.rateSaid !== rate && rate !== show.timeCode.rate) said.push(report({ kind: 'code', what: 'rate', rate }));
    this.rateSaid = rate;
    const plays = session.transport.kind === 'playing' && this.leads !== null && session.song?.id === this.leads.songId;
    const place = codePlace(this.code);
    const backwards = runsBackwards(this.code);
    const wild = isWild(this.code);
    if (wild && !this.wild) said.push(report({ kind: 'code', what: 'wild', rate }));
    this.wild = wild;
    if (standing !== null || backwards || isWound(this.code)) {
      if (backwards && !this.backwards) said.push(report({ kind: 'code', what: 'backwards', rate }));
      this.backwards = backwards;
      this.midnight = null;
      this.leads = null;
      return plays ? [...said, { kind: 'input', input: { kind: 'stop' } }] : said;
    }
    this.backwards = false;
    if (now - heard > GONE) {
      if (!this.lost && plays) said.push(report({ kind: 'code', what: 'lost', rate }));
      this.lost = this.lost || plays;
      return said;
    }
    if (!place) return said;
    if (this.lost) said.push(report({ kind: 'code', what: 'back', rate }));
    this.lost = false;
    return [...said, ...this.go(show, session, place.place + (now - place.at) * place.speed, place.speed, now)];
  }

  private go(show: Show, session: Session, at: Micros, speed: number, now: Micros): readonly Command[] {
    const midnight = now - at;
    const moved = this.midnight !== null && Math.abs(midnight - this.midnight) > MOVED;
    // What was moved is believed when it has run for some frames.
    if ((moved || this.midnight === null) && !isSteady(this.code)) return [];
    this.midnight = midnight;
    const { leads } = this;
    const { transport, song } = session;
    const plays = transport.kind === 'playing';
    const ranges = codeRanges(show, this.code.rate!);
    if (plays && leads !== null && song?.id === leads.songId && !moved) {
      const range = ranges.find((r) => r.entryId === leads.entryId) ?? leads;
      this.leads = range;
      const ahead = range.from - at;
      return [{ kind: 'input', input: { kind: 'code', zero: now + (ahead > 0 ? ahead / speed : ahead) } }];
    }
    const here = ranges.findLast((r) => r.from <= at && at < r.to - NO_MORE);
    // What comes next begins before its place, unless something else plays.
    const next = plays && !moved ? undefined : ranges.find((r) => r.from > at && r.from - at < AHEAD);
    const range = here ?? next;
    this.leads = range ?? null;
    if (!range)
      return plays && leads !== null && isSteady(this.code) ? [{ kind: 'input', input: { kind: 'stop' } }] : [];
    const into = at - range.from;
    const own = indexShow(show).songs.get(range.songId)!;
    const from = into <= 0 ? 0 : ticksAt(songTime(own), into + BRINGING);
    const zero = into <= 0 ? now - into / speed : now - into;
    return [{ kind: 'begin', songId: range.songId, entryId: range.entryId, from, how: 'code', at: zero }];
  }

  /** Where it is, for whoever looks; null while none came. */
  news(now: Micros): CodeNews | null {
    const { rate, standing, heard } = this.code;
    if (rate === null) return null;
    const place = codePlace(this.code);
    const last = this.code.quarter === null ? 0 : this.code.quarter / 4;
    const silent = now - heard > GONE;
    const frame =
      standing !== null
        ? standing / frameMicros(rate)
        : place
          ? (place.place + (silent ? 0 : (now - place.at) * place.speed)) / frameMicros(rate)
          : last;
    const how =
      standing !== null
        ? 'stands'
        : runsBackwards(this.code)
          ? 'backwards'
          : silent
            ? 'lost'
            : place
              ? 'runs'
              : 'wound';
    return { text: codeText(labelOf(Math.round(frame), rate), rate), rate, how };
  }
}
