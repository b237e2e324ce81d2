import { loopIn } from '../../core/compile';
import { soundInto, soundLine, sourceOf, wordOf, type Sound, type SoundRound } from '../../core/sound';
import { indexShow, setOf, songTime, songAsPlayed, ticksAt, type Call, type Song } from '../../core/show';
import type { Micros } from '../../core/time';
import { liveContext, playStretched, putSound, type Material } from '../adapters/audio';
import { shelf } from '../persistence/db';
import { loadSound } from '../persistence/sounds';
import { factorOf, type Mixer } from '../adapters/mixer';
import { followMix, liveMixer, useMix } from './mix';
import { useHearing } from './hearing';
import { useNews } from './news';
import { decodedSounds, readySound } from './sound';
import { useRehearsal } from './rehearsal';
import { useApp } from './store';
import { sayWords, spokenWords } from './words';
import { said } from '../../wording';

/** Sounds are put on the context this long ahead: a page in the background wakes once a second. */
const AHEAD_SECONDS = 3;
const PUMP_MILLIS = 250;
/** A clock from outside may drift by so much before what is heard is put on anew. */
const DRIFT: Micros = 8000;

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
  /** Ways into the mixer by source, cut off together at the end. */
  private readonly outs = new Map<string, GainNode>();
  private readonly timer: ReturnType<typeof setInterval>;
  private readonly ends: (() => void)[] = [];
  private over = false;

  constructor(
    private readonly context: AudioContext,
    private readonly hearing: Hearing,
    /** Clock time of song time 0. */
    public zero: Micros,
    private readonly mixer: Mixer,
  ) {
    this.sounds = hearing.sounds;
    this.timer = setInterval(() => this.pump(), PUMP_MILLIS);
    this.pump();
  }

  end(): void {
    this.over = true;
    clearInterval(this.timer);
    for (const end of this.ends) end();
    for (const out of this.outs.values()) out.disconnect();
  }

  private out(source: string): GainNode {
    let out = this.outs.get(source);
    if (!out) {
      out = new GainNode(this.context);
      out.connect(this.mixer.input(source));
      this.outs.set(source, out);
    }
    return out;
  }

  /** Whether there is anything to hear at all. */
  get wants(): boolean {
    return this.sounds.length > 0;
  }

  private pump(): void {
    lookAtSound();
    const horizon = this.context.currentTime + AHEAD_SECONDS;
    for (let sound = this.upcoming(); sound; sound = this.upcoming()) {
      const at = this.contextTime(sound.at);
      if (at > horizon) return;
      this.next += 1;
      if (sound.kind === 'track' && this.hearing.speed !== 1) void this.stretch(sound, at);
      else putSound(this.context, this.out(sourceOf(sound)), sound, at, material);
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
      playStretched(this.context, this.out(sourceOf(sound)), sound, new Blob([row.bytes], { type: row.type }), {
        at,
        speed,
      }),
    );
  }

  /** Where on the context a song time lies: the context's own pair of times, its and the page's, tells. */
  private contextTime(at: Micros): number {
    const { contextTime, performanceTime } = this.context.getOutputTimestamp();
    const pair =
      performanceTime && contextTime !== undefined
        ? { context: contextTime, page: performanceTime }
        : { context: this.context.currentTime, page: performance.now() };
    // What comes later than the browser knows of is put there as much sooner.
    const delay = useMix.getState().delay;
    return pair.context + ((this.zero + at) / 1000 - delay - (performance.timeOrigin + pair.page)) / 1000;
  }
}

/** Both grow while it plays: what is ready when its time comes is heard. */
const material: Material = { recordings: decodedSounds, words: spokenWords };

let heard: { readonly line: Heard; readonly song: Song; readonly text: string; readonly key: string } | null = null;

/** Lets the context run; browsers want that to come from a press. One that refuses is said for as long as it does. */
export function wakeSound(): void {
  const context = liveContext();
  if (context && context.state !== 'running') context.resume().then(lookAtSound, lookAtSound);
}

/** Notes whether what is to be heard is heard: a sound that was just woken is given a moment. */
function lookAtSound(): void {
  const context = heard ? liveContext() : null;
  const state =
    heard === null ? 'runs' : context === null ? 'missing' : context.state === 'running' ? 'runs' : 'stands';
  const wanted = heard !== null && heard.line.wants;
  const now = useHearing.getState();
  if (now.wanted !== wanted || now.state !== state) useHearing.setState({ wanted, state });
}

function silence(): void {
  if (heard) heard.line.end();
  const was = heard;
  heard = null;
  if (was || !useNews.getState().news.playing) lookAtSound();
}

/** What is played back is heard; an edit of the song that plays is heard too, from now on. */
function follow(): void {
  const { zero, from, songId, speed, counted, outside, loop, looping, pair, playing: plays } = useNews.getState().news;
  // Of two computers the one is heard that leads.
  const playing = plays && pair?.leads !== false;
  const { open } = useApp.getState();
  const written = open && songId !== null ? indexShow(open.show).songs.get(songId) : undefined;
  const song = written && songAsPlayed(written, { speed, counted, outside });
  const context = playing ? liveContext() : null;
  const mixer = context && liveMixer();
  if (!playing || zero === null || from === null || !open || !written || !song || !context || !mixer) {
    silence();
    if (playing && song && !context && !useHearing.getState().wanted) {
      useHearing.setState({ wanted: soundLine(song, 0).sounds.length > 0, state: 'missing' });
    }
    return;
  }
  const { recordings } = useRehearsal.getState();
  const bounds = looping && loop ? loopIn(song, loop) : null;
  const missing = new Set(setOf(open.show).missing);
  const key = JSON.stringify([bounds, speed, recordings, [...missing], useMix.getState().delay]);
  // Along a clock from outside it is a little sooner or later again and again: what is on its way stays.
  if (heard && outside !== null && Math.abs(heard.line.zero - zero) < DRIFT) heard.line.zero = zero;
  if (heard?.line.zero === zero && heard.song === song && heard.key === key) return;
  const at = Math.round(ticksAt(songTime(written), from) * 1000) / 1000;
  const [{ sounds }, round] = bounds ? soundInto(song, at, bounds, missing) : [soundLine(song, at, missing), null];
  const text = JSON.stringify([sounds, round, key]);
  if (heard?.line.zero === zero && heard.text === text) {
    heard = { ...heard, song, key };
    return;
  }
  silence();
  heard = { line: new Heard(context, { sounds, round, speed, showId: open.show.id }, zero, mixer), song, text, key };
}

/** From now on what is played back is heard. */
export function followSounds(): void {
  useNews.subscribe((state, before) => {
    if (state.news !== before.news) follow();
  });
  useRehearsal.subscribe(follow);
  useMix.subscribe(follow);
  useApp.subscribe((state, before) => {
    // Whoever is missing is missing at once.
    if (state.open?.show.sets !== before.open?.show.sets) follow();
  });
  followMix();
}

/** Plays a sound of the show at once, at a level in decibels: a sample that somebody pressed. */
export async function playSample(showId: string, audioId: string, gain: number): Promise<void> {
  const context = liveContext();
  const mixer = liveMixer();
  if (!context || !mixer) return;
  const buffer = await readySound(showId, audioId);
  if (!buffer) return;
  const source = new AudioBufferSourceNode(context, { buffer });
  source.connect(new GainNode(context, { gain: factorOf(gain) })).connect(mixer.input('samples'));
  source.start();
}

/** Plays a call at once, as it would be heard. Gives what there is to say where it is not heard as it is written. */
export async function hearCall(showId: string, call: Call, says: string): Promise<string | null> {
  wakeSound();
  const context = liveContext();
  const mixer = liveMixer();
  if (!context || !mixer) return said.noSoundHere();
  const sound: Sound =
    call.how === 'count'
      ? { kind: 'count', at: 0, beat: 1, spoken: true, gain: 0 }
      : { kind: 'call', at: 0, call, text: call.text.trim() || says, gain: 0 };
  if (call.audioId !== null) await readySound(showId, call.audioId);
  const word = wordOf(sound);
  await sayWords(word === '' ? [] : [word]);
  putSound(context, mixer.input('calls'), sound, context.currentTime + 0.02, material);
  return null;
}
