import { beforeEach, describe, expect, it } from 'vitest';
import { demoShow } from '../../core/demo';
import {
  applyEdit,
  changeCue,
  nameSlot,
  placeCue,
  renameTone,
  setTonePart,
  toneCue,
  type Show,
  inOrder,
} from '../../core/show';
import { Prover } from '../../workers/prover';
import { updateOf } from '../../workers/showMirror';
import { songMark } from './marks';
import { forgetProofs, useProofs } from './proofs';
import { Proving, type ProvingThread } from './proving';
import { tonightOf } from '../../core/tonight';

const show = demoShow();
const [first, second] = show.songs;

/** A prover that answers when it is let, or never, or with an error. */
class Thread {
  asked: string[] = [];
  mode: 'answers' | 'silent' | 'throws' = 'answers';
  private readonly prover = new Prover('engine');
  private sent: Show | undefined;
  readonly thread: ProvingThread = {
    show: (s) => {
      this.prover.update(updateOf(this.sent, s));
      this.sent = s;
    },
    fingerprints: (id) => this.answer(`prints ${id}`, () => this.prover.fingerprints(id)),
    prove: (id, detailed) =>
      this.answer(`prove ${id}${detailed ? ' in full' : ''}`, () => this.prover.prove(id, detailed)),
  };

  private answer<T>(what: string, make: () => T): Promise<T> {
    this.asked.push(what);
    if (this.mode === 'silent') return new Promise(() => undefined);
    if (this.mode === 'throws') return Promise.reject(new Error('broken'));
    return Promise.resolve().then(make);
  }
}

let front: Thread;
let helpers: Thread[];
let now: Show;
let kept: string[];
let timers: (() => void)[];
let proving: Proving;

const settle = async (): Promise<void> => {
  for (let i = 0; i < 400; i++) await Promise.resolve();
};
const edit = (to: Show): void => {
  now = to;
  proving.changed(tonightOf(to));
};
const mark = (id = first!.id) =>
  songMark(
    useProofs.getState(),
    now.songs.find((s) => s.id === id)!,
  );

beforeEach(() => {
  forgetProofs();
  front = new Thread();
  helpers = [];
  now = show;
  kept = [];
  timers = [];
  proving = new Proving({
    store: useProofs,
    show: () => now && tonightOf(now),
    front: front.thread,
    helpers: () => helpers.map((h) => h.thread),
    keep: (_, songId) => kept.push(songId),
    later: (run) => {
      timers.push(run);
      return () => (timers = timers.filter((t) => t !== run));
    },
  });
});

describe('proving by itself', () => {
  it('proves all songs of a show that is opened, the one in sight first and in full', async () => {
    proving.look({ kind: 'song', songId: second!.id });
    proving.changed(tonightOf(show));
    await settle();
    expect(front.asked[0]).toBe(`prove ${second!.id} in full`);
    expect(show.songs.every((s) => mark(s.id) === 'lit')).toBe(true);
    expect(useProofs.getState().waiting).toBe(0);
    expect(useProofs.getState().runs[second!.id]!.picture.detailed).toBe(true);
    expect(kept.toSorted()).toEqual(show.songs.map((s) => s.id).toSorted());
  });

  it('has other threads do the rest where there are any, and keeps the first for what is in sight', async () => {
    helpers = [new Thread(), new Thread()];
    proving.look({ kind: 'song', songId: first!.id });
    proving.changed(tonightOf(show));
    await settle();
    expect(front.asked[0]).toBe(`prove ${first!.id} in full`);
    // The last few are not worth handing out.
    expect(front.asked.filter((a) => a.startsWith('prove')).length).toBeLessThanOrEqual(4);
    expect(helpers.every((h) => h.asked.length > 2)).toBe(true);
    expect(show.songs.every((s) => mark(s.id) === 'lit')).toBe(true);
  });

  it('proves again just what an edit touched', async () => {
    proving.changed(tonightOf(show));
    await settle();
    front.asked = [];
    edit(applyEdit(show, changeCue(show, first!.id, 'slack-tide-cue-3', { shift: 5 })!));
    await settle();
    expect(front.asked).toEqual([`prints ${first!.id}`, `prove ${first!.id}`]);
    expect(mark()).toBe('lit');
    // What was proven stays proven when it comes back; the run is for what else its changes bear now.
    front.asked = [];
    const seen = new Set<string>();
    const end = useProofs.subscribe(() => seen.add(mark()));
    edit(show);
    await settle();
    end();
    expect(front.asked).toEqual([`prints ${first!.id}`, `prove ${first!.id}`]);
    expect([...seen]).toEqual(['lit']);
  });

  it('is hollow from the edit until it is proven, and cracked where it fails', async () => {
    proving.changed(tonightOf(show));
    await settle();
    const at = first!.cues[2]!.at;
    edit(applyEdit(show, placeCue(show, first!.id, toneCue('near', at + 30, 'fog-lead'))!));
    const seen = new Set<string>();
    const end = useProofs.subscribe(() => seen.add(mark()));
    await settle();
    end();
    expect([...seen]).toEqual(['hollow', 'cracked']);
  });

  it('leaves every lantern lit when something is named, and asks nobody', async () => {
    proving.changed(tonightOf(show));
    await settle();
    front.asked = [];
    edit(applyEdit(now, nameSlot(now, 'quillback', 2, 'Another name', 'x')!));
    edit(applyEdit(now, renameTone(now, 'undertow', 'Rip')!));
    await settle();
    expect(front.asked).toEqual([]);
    expect(show.songs.every((s) => mark(s.id) === 'lit')).toBe(true);
  });

  it('runs a song in sight again for its new names', async () => {
    proving.look({ kind: 'song', songId: first!.id });
    proving.changed(tonightOf(show));
    await settle();
    front.asked = [];
    edit(applyEdit(show, nameSlot(show, 'quillback', 2, 'Another name', 'x')!));
    await settle();
    expect(front.asked).toEqual([`prove ${first!.id} in full`]);
  });

  it('asks again only for songs that use a tone that was changed', async () => {
    proving.changed(tonightOf(show));
    await settle();
    front.asked = [];
    const tone = show.tones.find((t) => t.id === 'undertow')!;
    const users = show.songs.filter((s) => s.cues.some((c) => c.action.kind === 'tone' && c.action.toneId === tone.id));
    expect(users.length).toBeLessThan(show.songs.length);
    edit(applyEdit(show, setTonePart(show, tone.id, tone.parts[0]!.unitId, null)!));
    await settle();
    const asked = new Set(front.asked.map((a) => a.split(' ')[1]));
    expect(asked).toEqual(new Set(users.map((s) => s.id)));
  });

  it('doubts a lantern when nobody answers, and says so when the answer is an error', async () => {
    proving.changed(tonightOf(show));
    await settle();
    front.mode = 'silent';
    edit(applyEdit(show, changeCue(show, first!.id, 'slack-tide-cue-3', { shift: 5 })!));
    await settle();
    expect(mark()).toBe('lit');
    for (const run of timers.splice(0)) run();
    expect(mark()).toBe('hollow');
    expect(mark(second!.id)).toBe('lit');
  });

  it('goes on after an error with the next edit', async () => {
    front.mode = 'throws';
    proving.changed(tonightOf(show));
    await settle();
    expect(useProofs.getState().trouble).toBe('broken');
    expect(mark()).toBe('hollow');
    front.mode = 'answers';
    edit(applyEdit(show, changeCue(show, first!.id, 'slack-tide-cue-3', { shift: 5 })!));
    await settle();
    expect(useProofs.getState().trouble).toBeNull();
    expect(show.songs.every((s) => mark(s.id) === 'lit')).toBe(true);
  });

  it('does not take an answer about an earlier content for one about this', async () => {
    proving.look({ kind: 'song', songId: first!.id });
    proving.changed(tonightOf(show));
    await settle();
    const shifted = (n: number): Show => applyEdit(show, changeCue(show, first!.id, 'slack-tide-cue-3', { shift: n })!);
    // Edits faster than answers.
    for (let n = 1; n < 20; n++) {
      edit(shifted(n));
      for (let i = 0; i < n; i++) await Promise.resolve();
    }
    await settle();
    const prover = new Prover('engine');
    prover.update(updateOf(undefined, now));
    expect(useProofs.getState().fingerprints[first!.id]).toEqual(prover.fingerprints(first!.id));
    expect(useProofs.getState().runs[first!.id]!.song).toBe(now.songs[0]);
  });

  it('forgets songs that are gone', async () => {
    proving.changed(tonightOf(show));
    await settle();
    edit({ ...show, songs: show.songs.slice(1), ...inOrder([]) });
    await settle();
    expect(useProofs.getState().fingerprints[first!.id]).toBeUndefined();
    expect(useProofs.getState().waiting).toBe(0);
  });
});
