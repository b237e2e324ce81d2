import { create } from 'zustand';
import { setOf, soundAfter, soundToPress, type SoundEntry } from '../../core/show';
import type { SessionEvent } from '../../playback';
import { liveContext } from '../adapters/audio';
import { factorOf } from '../adapters/mixer';
import { wakeSound } from './heard';
import { liveMixer } from './mix';
import { useNews } from './news';
import { readySound } from './sound';
import { useApp } from './store';

/** The sound between songs that plays, by its entry in the set; null for none. */
export const useInterlude = create<{ readonly entryId: string | null }>(() => ({ entryId: null }));

interface Playing {
  readonly entry: SoundEntry;
  readonly source: AudioBufferSourceNode;
  readonly gain: GainNode;
}
let playing: Playing | null = null;
/** What is asked for last is played: one that takes longer to decode does not come in later. */
let asked = 0;

/** The sound of the set that a press is for now; null where there is none. */
export function interludeHere(): SoundEntry | null {
  const { open } = useApp.getState();
  const { entryId, playing: plays, history } = useNews.getState().news;
  if (!open || plays) return null;
  return soundToPress(setOf(open.show), entryId, history.at(-1)?.entryId === entryId);
}

/** Begins a sound between songs, in place of one that plays. */
export async function playInterlude(entry: SoundEntry): Promise<void> {
  const mine = ++asked;
  wakeSound();
  const { open } = useApp.getState();
  const [context, mixer] = [liveContext(), liveMixer()];
  const buffer = open && context && mixer ? await readySound(open.show.id, entry.audioId) : undefined;
  if (!buffer || !context || !mixer || mine !== asked || useNews.getState().news.playing) return;
  end(0.05);
  const source = new AudioBufferSourceNode(context, { buffer, loop: entry.loops });
  const gain = new GainNode(context, { gain: factorOf(entry.gain) });
  source.connect(gain).connect(mixer.input('backing'));
  const begun = { entry, source, gain };
  source.addEventListener('ended', () => {
    if (playing !== begun) return;
    playing = null;
    useInterlude.setState({ entryId: null });
    goOn(entry.id);
  });
  source.start();
  playing = begun;
  useInterlude.setState({ entryId: entry.id });
}

/** What follows an entry of the set by itself. */
function goOn(entryId: string): void {
  const { open } = useApp.getState();
  const next = open && soundAfter(setOf(open.show), entryId);
  if (next) void playInterlude(next);
}

function end(seconds: number): void {
  const { context } = playing?.source ?? {};
  if (!playing || !context) return;
  const { source, gain } = playing;
  playing = null;
  useInterlude.setState({ entryId: null });
  const now = context.currentTime;
  gain.gain.setValueAtTime(gain.gain.value, now);
  gain.gain.linearRampToValueAtTime(0, now + Math.max(0.05, seconds));
  source.stop(now + Math.max(0.05, seconds));
}

/** Ends the sound between songs, as it goes away under a song. */
export function stopInterlude(): void {
  asked += 1;
  end(playing ? Math.min(1, playing.entry.fade) : 0);
}

/** Plays the sound between songs, or ends it. */
export function pressInterlude(): void {
  if (playing) return stopInterlude();
  const entry = interludeHere();
  if (entry) void playInterlude(entry);
}

/** What happened to the session: a song that came to its end is followed by what stands behind it. */
export function interludesHear(events: readonly SessionEvent[]): void {
  for (const event of events) {
    if (event.kind === 'started') ended = false;
    if (event.kind === 'interlude') pressInterlude();
    // The news that it stopped comes with the event or right behind it.
    if (event.kind === 'stopped' && (event.why === 'end' || (event.why === 'asked' && isOpen()))) ended = true;
  }
  follow();
}
let ended = false;

/** Whether the song that is on has no end of its own: to stop it is to end it. */
function isOpen(): boolean {
  const { songId } = useNews.getState().news;
  return useApp.getState().open?.show.songs.find((s) => s.id === songId)?.open === true;
}

function follow(): void {
  const { playing: plays, history } = useNews.getState().news;
  if (plays) {
    asked += 1;
    if (playing) end(playing.entry.fade);
    return;
  }
  const last = history.at(-1)?.entryId ?? null;
  if (!ended) return;
  ended = false;
  if (last !== null) goOn(last);
}

/** From now on sounds between songs follow what is played, and end with their show. */
export function followInterludes(): void {
  useNews.subscribe(({ news }, { news: before }) => {
    if (news.playing !== before.playing) follow();
  });
  useApp.subscribe(({ open }, { open: before }) => {
    if (!playing || open?.show === before?.show) return;
    const still =
      open && open.show.id === before?.show.id && setOf(open.show).entries.some((e) => e.id === playing?.entry.id);
    if (!still) stopInterlude();
  });
}
