import type { Remote } from 'comlink';
import { create, type StoreApi } from 'zustand';
import { noteOff, noteOn, type Bytes, type IdentityText } from '../../core/midi';
import type { Show } from '../../core/show';
import type { Micros } from '../../core/time';
import type { Outgoing, SentFor } from '../../playback';
import type { PlaybackWorker } from '../../workers/protocol';
import type { Access, RealEars, RealPort, RealPorts } from '../adapters/realPorts';
import type { PortUse } from '../persistence/rows';
import { lateWords, said } from '../../wording';
import { namesNow, portNamed, takenKeys } from './portNames';

export type { PortUse, RealName } from '../persistence/rows';

/** What came in on a real port last. */
export interface LastIn {
  readonly bytes: Bytes;
  /** How many messages have come in all. */
  readonly count: number;
}

/** A unit that said who it is. */
export interface Answer {
  readonly portId: string;
  readonly identity: IdentityText;
}

export interface PortsState {
  readonly access: Access;
  readonly ports: readonly RealPort[];
  /** What this computer has each port of the open show be; those that are not named are stand-ins. */
  readonly uses: Readonly<Record<string, PortUse>>;
  /** Ports of the show whose real one is not there. */
  readonly lost: readonly string[];
  /** Ports of the show whose real one is there and takes no messages: nothing of what was sent last has left. */
  readonly refusing: readonly string[];
  /** Messages that left late, a moment ago: how many, and the latest of them in milliseconds; null for none. */
  readonly late: { readonly count: number; readonly millis: number } | null;
  readonly last: Readonly<Record<string, LastIn>>;
  readonly answers: readonly Answer[];
  /** How many answers were heard in all. */
  readonly heard: number;
}

export const STAND_IN: PortUse = { standIn: true, out: null, in: null };

export const usePorts = create<PortsState>(() => ({
  access: { kind: 'unasked' },
  ports: [],
  uses: {},
  lost: [],
  refusing: [],
  late: null,
  last: {},
  answers: [],
  heard: 0,
}));

/** A page that takes so long to take what it is handed is slow, in milliseconds, and counts as slow for so long after that. */
const SLOW_FROM = 120;
const SLOW_FOR = 60_000;
/** What is handed over less than this before its time was not planned: somebody pressed something. */
const PLANNED_FROM = 15;
/** Most messages that wait for the playback: a flood beyond that is cut. */
const WAITING = 20_000;
/** Milliseconds from when a message should leave until it counts as late: what is pressed is sent at once, and a thread away. */
const LATE_FROM = 30;
/** The clocks are compared until an answer comes within this, in milliseconds, and so often. */
const SOON = 4;
const COMPARED_EVERY = 500;
/** A port that takes nothing is tried so often, in milliseconds, with the end of a note that nobody began. */
const TRIED_EVERY = 1000;
const NOTHING: Bytes = [0x8f, 0, 0];
/** That messages left late is said for so long after the last of them, in milliseconds. */
const LATE_FOR = 10_000;
/** Milliseconds between two looks of the screen at what came in. */
const SEEN_EVERY = 100;

export interface PortsNeeds {
  readonly store: Pick<StoreApi<PortsState>, 'getState' | 'setState'>;
  readonly show: () => Show | undefined;
  readonly ask: <T>(run: (worker: Remote<PlaybackWorker>) => Promise<T>) => Promise<T | undefined>;
  readonly openReal: (ears: RealEars) => Promise<{ readonly access: Access; readonly real: RealPorts | null }>;
  readonly load: (showId: string) => Promise<Readonly<Record<string, PortUse>>>;
  readonly keep: (showId: string, uses: Readonly<Record<string, PortUse>>) => void;
  /** Milliseconds of the page's clock, and microseconds from the epoch at which that clock began. */
  readonly clock: { readonly now: () => number; readonly origin: () => number };
  readonly later: (run: () => void, millis: number) => void;
  readonly say: (text: string) => void;
  /** Whether a show is on for its audience: then no stand-in answers in the place of a real unit. */
  readonly isShowOn: () => boolean;
  /** A message that was planned left a real port so many milliseconds late. */
  readonly leftAt: (port: RealPort, late: number) => void;
  /** A message of a song left late by that, or not at all: null. */
  readonly leftFor: (what: SentFor, late: number | null) => void;
}

export interface PortsDesk {
  /** A show was opened: its ports are bound as they were on this computer. */
  readonly follow: (show: Show) => Promise<void>;
  /** Asks the browser for this computer's ports. */
  readonly open: () => Promise<void>;
  readonly use: (portId: string, use: PortUse) => void;
  /** Sends a note to a real port whatever it is bound to, to hear which box it is. */
  readonly clickOn: (key: string) => void;
  /** Puts what the playback hands over on the real ports. */
  readonly handOver: (batch: readonly Outgoing[], from: Micros) => void;
  /** The page is hidden, or seen again. */
  readonly hidden: (is: boolean) => void;
  readonly answered: (answer: Answer) => void;
  /** A show begins or is over: stand-ins answer beside real ports only in between. */
  readonly bindAgain: () => void;
  /** The playback was started anew: it is told again. */
  readonly tellAgain: () => void;
}

export function createPorts(needs: PortsNeeds): PortsDesk {
  const { store, ask, clock, say } = needs;
  let real: RealPorts | null = null;
  let showId: string | null = null;
  /** Microseconds that the playback's clock is ahead of the page's. */
  let ahead = 0;
  let waiting: Outgoing[] = [];
  let under = false;
  let seen: Record<string, LastIn> = {};
  let looks = false;
  let cut = false;

  let lateTurn = 0;
  let compared = 0;

  /** Notes whether a port takes what it is sent; what changes is said. */
  const takes = (portId: string, does: boolean): void => {
    const { refusing } = store.getState();
    if (refusing.includes(portId) !== does) return;
    store.setState({ refusing: does ? refusing.filter((id) => id !== portId) : [...refusing, portId] });
    const beside = isBeside(store.getState().uses[portId]);
    // What was sent meanwhile never arrived: nobody knows what its units are on.
    if (does) {
      say(said.portTakesAgain(portName(portId)));
      if (beside) void ask((w) => w.port(portId, false));
      void ask((w) => w.port(portId, true));
      return;
    }
    say(said.portTakesNothing(portName(portId), beside));
    if (!beside) void ask((w) => w.port(portId, false));
    tryAgain(portId);
  };

  /** Tries a port that takes nothing with a message that does nothing, until it takes one. */
  const tryAgain = (portId: string): void =>
    needs.later(() => {
      const { uses, ports, refusing } = store.getState();
      if (!refusing.includes(portId)) return;
      const port = portNamed(ports, uses[portId]?.out ?? null, 'out', takenKeys(uses, ports));
      if (port && real?.send(port.key, clock.now(), NOTHING) === 'sent') takes(portId, true);
      else tryAgain(portId);
    }, TRIED_EVERY);

  const leftLate = (count: number, millis: number): void => {
    if (count === 0) return;
    const { late } = store.getState();
    store.setState({ late: { count: count + (late?.count ?? 0), millis: Math.max(millis, late?.millis ?? 0) } });
    if (!late) say(lateWords({ count, millis }));
    const turn = ++lateTurn;
    needs.later(() => {
      if (turn === lateTurn) store.setState({ late: null });
    }, LATE_FOR);
  };

  /** Why the page may be slow to take what it is handed: it is hidden, or was slow just now. */
  const slow = { hidden: false, found: false, turn: 0 };
  const tellSlow = (change: Partial<typeof slow>): void => {
    const was = slow.hidden || slow.found;
    Object.assign(slow, change);
    const is = slow.hidden || slow.found;
    if (is !== was) void ask((w) => w.unsteady(is));
  };
  const tookLong = (): void => {
    const turn = slow.turn + 1;
    tellSlow({ found: true, turn });
    needs.later(() => {
      if (turn === slow.turn) tellSlow({ found: false });
    }, SLOW_FOR);
  };

  const isReal = ({ out, in: input }: PortUse): boolean => out !== null || input !== null;
  /** Whether a stand-in answers on a port, also where a real one is bound to it. */
  const isBeside = (use: PortUse | undefined): boolean => use?.standIn === true && !(needs.isShowOn() && isReal(use));
  const portName = (portId: string): string => needs.show()?.ports.find((p) => p.id === portId)?.name ?? 'A port';

  /** Ports whose real one should be there and is not. */
  const lostNow = (): string[] => {
    const { uses, ports } = store.getState();
    const taken = takenKeys(uses, ports);
    const isLost = ({ out, in: input }: PortUse): boolean =>
      (out !== null && !portNamed(ports, out, 'out', taken)) ||
      (input !== null && !portNamed(ports, input, 'in', taken));
    return Object.entries(uses).flatMap(([portId, use]) => (isLost(use) ? [portId] : []));
  };

  /** Whether another port of the same name is there that may be the one which is not, or not. */
  const hasTwin = (portId: string): boolean => {
    const { uses, ports } = store.getState();
    const { out = null, in: input = null } = uses[portId] ?? {};
    return ports.some((p) => [out, input].some((n) => n?.name === p.name && n.maker === p.maker && n.key !== p.key));
  };

  /** Real ports were plugged in or pulled out: those that are known again under another key are remembered by that. */
  const follow = (ports: readonly RealPort[]): void => {
    const { uses } = store.getState();
    const now = namesNow(uses, ports);
    store.setState({ ports, uses: now });
    if (now !== uses && showId !== null) needs.keep(showId, now);
    tellLost();
  };

  const goneNow = (): string[] => lostNow().filter((id) => !isBeside(store.getState().uses[id]));

  const told = new Set<string>();
  /** Tells the playback which ports are gone or back, and says so. */
  const tellLost = (): void => {
    const before = store.getState().lost;
    const lost = lostNow();
    store.setState({ lost });
    const gone = new Set(goneNow());
    // What is not there takes nothing anyway.
    const { refusing } = store.getState();
    if (refusing.some((id) => lost.includes(id))) {
      store.setState({ refusing: refusing.filter((id) => !lost.includes(id)) });
    }
    for (const id of lost) {
      if (before.includes(id)) continue;
      const rest = gone.has(id) ? 'Its units are not sent anything until it is back.' : 'The stand-in goes on.';
      const twin = hasTwin(id)
        ? ' Another port of the same name is there: choose it under Ports if it is the one.'
        : '';
      say(`${portName(id)}: the real port is not connected. ${rest}${twin}`);
    }
    for (const id of before) {
      if (lost.includes(id) || !store.getState().uses[id]) continue;
      say(said.portBack(portName(id)));
      // Beside a stand-in it was never gone for the playback, but what hangs on it has missed everything.
      if (!told.has(id)) void ask((w) => w.port(id, false));
      told.add(id);
    }
    for (const id of gone) {
      if (told.has(id)) continue;
      told.add(id);
      void ask((w) => w.port(id, false));
    }
    for (const id of told) {
      if (gone.has(id)) continue;
      told.delete(id);
      void ask((w) => w.port(id, true));
    }
  };

  const bind = (): void => {
    const { uses } = store.getState();
    const bindings = Object.entries(uses).map(([portId, use]) => ({
      portId,
      standIn: isBeside(use),
      real: isReal(use),
    }));
    void ask((w) => w.bindPorts(bindings));
    tellLost();
  };

  /**
   * How far the playback's clock is ahead: what came back soonest tells best. While page or thread are busy nothing
   * comes back soon, so it is asked again until something does.
   */
  const compareClocks = async (): Promise<void> => {
    const turn = ++compared;
    let best = Number.POSITIVE_INFINITY;
    const compare = async (): Promise<void> => {
      for (let i = 0; i < 5 && best > SOON; i++) {
        const from = clock.now();
        const there = await ask((w) => w.now());
        const to = clock.now();
        if (there === undefined || to - from >= best || turn !== compared) continue;
        best = to - from;
        ahead = there - (clock.origin() + ((from + to) / 2) * 1000);
      }
      if (best > SOON && turn === compared) needs.later(() => void compare(), COMPARED_EVERY);
    };
    await compare();
  };

  const pass = async (): Promise<void> => {
    if (under) return;
    under = true;
    while (waiting.length > 0) {
      const batch = waiting;
      waiting = [];
      await ask((w) => w.arrived(batch));
    }
    under = false;
    cut = false;
  };

  const look = (): void => {
    if (looks) return;
    looks = true;
    needs.later(() => {
      looks = false;
      store.setState({ last: seen });
    }, SEEN_EVERY);
  };

  const came = (key: string, at: number, bytes: Bytes): void => {
    seen = { ...seen, [key]: { bytes, count: (seen[key]?.count ?? 0) + 1 } };
    look();
    const { uses, ports } = store.getState();
    const taken = takenKeys(uses, ports);
    for (const [portId, use] of Object.entries(uses)) {
      if (portNamed(ports, use.in, 'in', taken)?.key !== key) continue;
      if (waiting.length < WAITING) {
        waiting.push({ portId, at: clock.origin() + at * 1000 + ahead, bytes });
      } else if (!cut) {
        cut = true;
        say(said.tooMuchArrives(portName(portId)));
      }
    }
    void pass();
  };

  const open = async (): Promise<void> => {
    if (store.getState().access.kind === 'open' || store.getState().access.kind === 'asking') return;
    store.setState({ access: { kind: 'asking' } });
    const opened = await needs.openReal({
      ports: follow,
      bytes: came,
    });
    real = opened.real;
    store.setState({ access: opened.access });
    await compareClocks();
    follow(real?.ports ?? []);
  };

  return {
    open,
    follow: async (show) => {
      if (showId === show.id) return;
      showId = show.id;
      const uses = await needs.load(show.id);
      if (showId !== show.id) return;
      store.setState({ uses, answers: [], lost: [], refusing: [], late: null });
      told.clear();
      if (Object.values(uses).some(isReal)) {
        await open();
        bind();
      }
    },
    use: (portId, use) => {
      const uses = { ...store.getState().uses, [portId]: use };
      store.setState({ uses });
      if (showId !== null) needs.keep(showId, uses);
      bind();
    },
    bindAgain: bind,
    clickOn: (key) => {
      const now = clock.now();
      real?.send(key, now, noteOn(1, 60, 80));
      real?.send(key, now + 300, noteOff(1, 60));
    },
    hidden: (is) => tellSlow({ hidden: is }),
    handOver: (batch, from) => {
      const { uses, ports } = store.getState();
      const taken = takenKeys(uses, ports);
      const now = clock.now();
      const handed = (from - ahead - clock.origin()) / 1000;
      if (now - handed > SLOW_FROM) tookLong();
      let [count, latest] = [0, 0];
      for (const { portId, at, bytes, sentFor } of batch) {
        const port = portNamed(ports, uses[portId]?.out ?? null, 'out', taken);
        const leaves = (at - ahead - clock.origin()) / 1000;
        const came = port && real?.send(port.key, leaves, bytes);
        if (came === undefined) continue;
        if (came === 'gone') tellLost();
        else takes(portId, came === 'sent');
        if (came === 'sent' && leaves - handed >= PLANNED_FROM) needs.leftAt(port!, Math.max(0, now - leaves));
        if (sentFor) {
          const late = Math.max(leaves, now) - (sentFor.planned - ahead - clock.origin()) / 1000;
          needs.leftFor(sentFor, came === 'sent' ? Math.max(0, late) : null);
        }
        // What was not taken did not leave at all.
        if (came !== 'sent' || now - leaves <= LATE_FROM) continue;
        count += 1;
        latest = Math.max(latest, now - leaves);
      }
      leftLate(count, latest);
    },
    answered: (answer) => {
      const others = store.getState().answers.filter((a) => JSON.stringify(a) !== JSON.stringify(answer));
      store.setState((s) => ({ answers: [...others, answer].slice(-100), heard: s.heard + 1 }));
    },
    tellAgain: () => {
      told.clear();
      bind();
      if (slow.hidden || slow.found) void ask((w) => w.unsteady(true));
      void compareClocks();
    },
  };
}
