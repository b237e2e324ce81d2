import { timesBasis } from '../../core/meaning';
import { indexShow, setOf, songsOfSet, type Show } from '../../core/show';
import type { Lantern } from '../../core/simulate';
import { changesFor, differsTonight, tonightOf } from '../../core/tonight';
import type { PracticeWay } from '../../playback';
import { listWords } from '../../wording';
import type { PortUse } from '../state/ports';

/** What is known of this computer and of tonight when a show is about to begin. */
export interface ReadyFacts {
  readonly uses: Readonly<Record<string, PortUse>>;
  readonly lost: readonly string[];
  readonly refusing: readonly string[];
  /** The mark of each song, by its id. */
  readonly markOf: (songId: string) => Lantern;
  readonly findings: number;
  readonly ways: Readonly<Record<string, PracticeWay>>;
  readonly muted: number;
  readonly sound: string | null;
}

/** Something that is not ready. */
export interface NotReady {
  readonly text: string;
  /** The view that it is mended in, as the end of an address; null where there is none. */
  readonly to: string | null;
  /** Whether the start itself sets it right. */
  readonly mends: boolean;
}

const count = (n: number, one: string, more: string): string => (n === 1 ? `1 ${one}` : `${n} ${more}`);
const line = (text: string, to: string | null = null, mends = false): NotReady => ({ text, to, mends });

/** What is not ready for a show, the gravest first: said before it begins, and accepted by beginning. */
export function readiness(show: Show, facts: ReadyFacts): readonly NotReady[] {
  const songs = songsOfSet(show);
  return [
    ...(songs.length === 0 ? [line(`${setOf(show).title} has no song.`, 'set')] : []),
    ...portLines(show, facts),
    ...songLines(show, facts),
    ...(facts.findings > 0 ? [line(`${count(facts.findings, 'finding is', 'findings are')} open.`, 'dry-run')] : []),
    ...timeLines(show),
    ...tonightLines(show),
    ...practiceLines(show, facts),
    ...(facts.sound === null ? [] : [line(facts.sound, 'set/mix')]),
  ];
}

/** Ports that units hang on. */
function wiredPorts(show: Show): Show['ports'] {
  const wired = new Set(
    show.units.flatMap((u) => [
      ...(u.input?.from === 'port' ? [u.input.portId] : []),
      ...(u.returns ? [u.returns.portId] : []),
    ]),
  );
  return show.ports.filter((p) => wired.has(p.id));
}

/** How many of the ports that units hang on have a real one that is there. */
export function portsThere(
  show: Show,
  { uses, lost, refusing }: Pick<ReadyFacts, 'uses' | 'lost' | 'refusing'>,
): { readonly there: number; readonly all: number } {
  const wired = wiredPorts(show);
  const isThere = (id: string): boolean =>
    Boolean(uses[id]?.out ?? uses[id]?.in) && !lost.includes(id) && !refusing.includes(id);
  return { there: wired.filter((p) => isThere(p.id)).length, all: wired.length };
}

/** Ports that units hang on, and that no real one is bound to, is there for, or takes anything. */
function portLines(show: Show, { uses, lost, refusing }: ReadyFacts): readonly NotReady[] {
  const wired = wiredPorts(show);
  const named = (ids: (id: string) => boolean): string => listWords(wired.filter((p) => ids(p.id)).map((p) => p.name));
  const isBound = (id: string): boolean => Boolean(uses[id]?.out ?? uses[id]?.in);
  const [unbound, gone, deaf] = [
    named((id) => !isBound(id)),
    named((id) => lost.includes(id)),
    named((id) => refusing.includes(id)),
  ];
  return [
    ...(gone === '' ? [] : [line(`${gone}: the real port is not connected.`, 'rig/ports')]),
    ...(deaf === '' ? [] : [line(`${deaf}: the real port takes no messages.`, 'rig/ports')]),
    ...(unbound === '' ? [] : [line(`${unbound}: only stand-ins hear it, no real port is chosen.`, 'rig/ports')]),
  ];
}

function songLines(show: Show, { markOf }: ReadyFacts): readonly NotReady[] {
  const songs = songsOfSet(show);
  const failing = songs.filter((s) => markOf(s.id) === 'cracked').map((s) => s.title);
  const open = songs.filter((s) => markOf(s.id) === 'hollow').length;
  return [
    ...(failing.length === 0 ? [] : [line(`Something does not land in ${listWords(failing)}.`, 'dry-run')]),
    ...(open === 0 ? [] : [line(`${count(open, 'song is', 'songs are')} not proven.`, 'dry-run')]),
  ];
}

function timeLines(show: Show): readonly NotReady[] {
  const { guess } = timesBasis(show);
  return guess.length === 0 ? [] : [line(`Times of ${listWords(guess.map((u) => u.name))} are guesses.`, 'map')];
}

/** What differs tonight is no fault: somebody chose it, and is told once more; of what is off, what is left out. */
function tonightLines(show: Show): readonly NotReady[] {
  const { units } = indexShow(show);
  const off = setOf(show).tonight.flatMap((t) => {
    if (t.how !== 'off') return [];
    const left = changesFor(show, t.unitId).reduce((sum, m) => sum + m.changes, 0);
    return [line(`${units.get(t.unitId)?.name}: ${count(left, 'change is', 'changes are')} left out.`, 'set/tonight')];
  });
  return [...differsTonight(tonightOf(show)).map((text) => line(text, 'set/tonight')), ...off];
}

function practiceLines(show: Show, { ways, muted }: ReadyFacts): readonly NotReady[] {
  const practised = show.songs.filter((s) => {
    const way = ways[s.id];
    return way !== undefined && (way.speed !== 1 || way.loop !== null);
  });
  const names = listWords(practised.map((s) => s.title));
  return [
    ...(practised.length === 0 ? [] : [line(`Practice is on in ${names}: the start ends it.`, null, true)]),
    ...(muted === 0 ? [] : [line('Lanes are muted or heard alone: the start ends that.', null, true)]),
  ];
}
