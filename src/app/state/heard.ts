import { loopIn } from '../../core/compile';
import { soundInto, soundLine, type Sound, type SoundRound } from '../../core/sound';
import { atSpeed, indexShow, songTime, ticksAt, type Song } from '../../core/show';
import type { Micros } from '../../core/time';
import { liveContext, playStretched, putSound } from '../adapters/audio';
import { shelf } from '../persistence/db';
import { loadSound } from '../persistence/sounds';
import { useNews } from './news';
import { decodedSounds } from './sound';
import { useRehearsal } from './rehearsal';
import { useApp } from './store';

/** Sounds are put on the context this long ahead: a page in the background wakes once a second. */
const AHEAD_SECONDS = 3;
const PUMP_MILLIS = 250;

/** What there is to hear of a song: once, and in each round of a loop behind it. Times are those of the song at its speed. */
interface Hearing {
  readonly sounds: readonly Sound[];
  readonly round: SoundRound | null;
  readonly speed: number;
  /** Whose recordings they are. */
  readonly showId: string;
}

/** A song that is being heard. */
class Heard {
  private next = 0;
  private rounds = 0;
  private sounds: readonly Sound[];
  private readonly out: GainNode;
  private readonly timer: ReturnType<typeof setInterval>;
  private readonly speeches: ReturnType<typeof setTimeout>[] = [];
  private readonly ends: (() => void)[] = [];
  private over = false;

  constructor(
    private readonly context: AudioContext,
    private readonly hearing: Hearing,
    /** Clock time of song time 0. */
    readonly zero: Micros,
  ) {
    this.sounds = hearing.sounds;
    this.out = new GainNode(context);
    this.out.connect(context.destination);
    this.timer = setInterval(() => this.pump(), PUMP_MILLIS);
    this.pump();
  }

  end(): void {
    this.over = true;
    clearInterval(this.timer);
    for (const end of this.ends) end();
    for (const timer of this.speeches) clearTimeout(timer);
    if (this.speeches.length > 0) speechSynthesis.cancel();
    this.out.disconnect();
  }

  private pump(): void {
    const horizon = this.context.currentTime + AHEAD_SECONDS;
    for (let sound = this.upcoming(); sound; sound = this.upcoming()) {
      const at = this.contextTime(sound.at);
      if (at > horizon) return;
      this.next += 1;
      if (sound.kind === 'track' && this.hearing.speed !== 1) void this.stretch(sound, at);
      else if (sound.kind === 'call' && sound.call.how === 'voice' && speaks()) {
        const { text } = sound;
        const wait = (at - this.context.currentTime) * 1000;
        // One that is past is left out, as any sound but a recording is.
        if (wait < 0) continue;
        this.speeches.push(setTimeout(() => speechSynthesis.speak(new SpeechSynthesisUtterance(text)), wait));
      } else putSound(this.context, this.out, sound, at, decodedSounds);
    }
  }

  /** The sound that comes next: of a loop, the first of its next round behind the last. */
  private upcoming(): Sound | undefined {
    const { round } = this.hearing;
    if (this.next >= this.sounds.length && round && round.sounds.length > 0) {
      this.rounds += 1;
      this.next = 0;
      const later = this.rounds * (round.to - round.from);
      this.sounds = round.sounds.map((s) =>
        s.kind === 'track' && s.until !== undefined
          ? { ...s, at: s.at + later, until: s.until + later }
          : { ...s, at: s.at + later },
      );
    }
    return this.sounds[this.next];
  }

  /** A recording at another speed than it has: at its own pitch, or not at all. */
  private async stretch(sound: Extract<Sound, { kind: 'track' }>, at: number): Promise<void> {
    const { speed, showId } = this.hearing;
    if (useRehearsal.getState().recordings === 'silent') return;
    const row = await loadSound(shelf, showId, sound.audioId);
    if (!row || this.over) return;
    this.ends.push(
      playStretched(this.context, this.out, sound, new Blob([row.bytes], { type: row.type }), { at, speed }),
    );
  }

  /** Where on the context a song time lies: the context's own pair of times, its and the page's, tells. */
  private contextTime(at: Micros): number {
    const { contextTime, performanceTime } = this.context.getOutputTimestamp();
    const pair =
      performanceTime && contextTime !== undefined
        ? { context: contextTime, page: performanceTime }
        : { context: this.context.currentTime, page: performance.now() };
    return pair.context + ((this.zero + at) / 1000 - (performance.timeOrigin + pair.page)) / 1000;
  }
}

const speaks = (): boolean => 'speechSynthesis' in globalThis && speechSynthesis.getVoices().length > 0;

let heard: { readonly line: Heard; readonly song: Song; readonly text: string; readonly key: string } | null = null;

/** Lets the context run; browsers want that to come from a press. */
export function wakeSound(): void {
  const context = liveContext();
  if (context?.state === 'suspended') void context.resume();
}

function silence(): void {
  heard?.line.end();
  heard = null;
}

/** What is played back is heard; an edit of the song that plays is heard too, from now on. */
function follow(): void {
  const { playing, zero, from, songId, speed, loop, looping } = useNews.getState().news;
  const { open } = useApp.getState();
  const written = open && songId !== null ? indexShow(open.show).songs.get(songId) : undefined;
  const song = written && atSpeed(written, speed);
  const context = playing ? liveContext() : null;
  if (zero === null || from === null || !open || !written || !song || !context) {
    silence();
    return;
  }
  const { recordings } = useRehearsal.getState();
  const bounds = looping && loop ? loopIn(song, loop) : null;
  const key = JSON.stringify([bounds, speed, recordings]);
  if (heard?.line.zero === zero && heard.song === song && heard.key === key) return;
  const at = Math.round(ticksAt(songTime(written), from) * 1000) / 1000;
  const [{ sounds }, round] = bounds ? soundInto(song, at, bounds) : [soundLine(song, at), null];
  const text = JSON.stringify([sounds, round, key]);
  if (heard?.line.zero === zero && heard.text === text) {
    heard = { ...heard, song, key };
    return;
  }
  silence();
  heard = { line: new Heard(context, { sounds, round, speed, showId: open.show.id }, zero), song, text, key };
}

/** From now on what is played back is heard. */
export function followSounds(): void {
  useNews.subscribe((state, before) => {
    if (state.news !== before.news) follow();
  });
  useRehearsal.subscribe(follow);
}
