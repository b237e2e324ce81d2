import { create, type StoreApi } from 'zustand';
import {
  forPeer,
  isForPeer,
  peerShowSchema,
  peerText,
  readLine,
  toFirstSchema,
  toSecondSchema,
  type FromPeer,
} from '../../core/formats/line';
import { readShowData } from '../../core/formats/show-file';
import { sharing, type Show } from '../../core/show';
import type { Millis } from '../../core/time';
import type { BoxTurn, PairSeat } from '../../playback';
import { PAIR_REFUSALS, problemLine, said } from '../../wording';
import type { ShowUpdate } from '../../workers/protocol';
import { createPairSounds, type PairSoundsNeeds } from './pairSounds';
import { ShowMirror, updateOf } from '../../workers/showMirror';
import type { LineEars, LineOut } from '../adapters/line';
import type { PairRow } from '../persistence/rows';

/** This computer, as one of two that have one show. */
export interface PairState {
  /** Null where it is alone. */
  readonly seat: 'first' | 'second' | null;
  readonly line: 'opening' | 'open' | 'unreachable';
  /** Whether the other one is on the line. */
  readonly isThere: boolean;
  readonly code: { readonly text: string; readonly until: number; readonly seconds: number } | null;
  /** Under which the second computer finds this one. */
  readonly addresses: readonly string[];
  readonly wrongCodes: number;
  /** Why the other computer did not take this one; null where nothing is wrong. */
  readonly refusal: string | null;
  /** The show of the other computer, once it is here. */
  readonly showId: string | null;
  /** What turns a switch box to this computer; null for none. */
  readonly box: BoxTurn | null;
}

const ALONE: PairState = {
  seat: null,
  line: 'opening',
  isThere: false,
  code: null,
  addresses: [],
  wrongCodes: 0,
  refusal: null,
  showId: null,
  box: null,
};

export const usePair = create<PairState>(() => ALONE);

/** A pair holds for a night: what was paired longer ago is alone again. */
const A_NIGHT: Millis = 12 * 3_600_000;
/** Edits of the show are told so often, in milliseconds. */
const TELL_EVERY = 300;

export interface PairNeeds {
  readonly store: Pick<StoreApi<PairState>, 'getState' | 'setState'>;
  readonly openLine: (path: string, ears: LineEars) => LineOut;
  /** What the playback is told. */
  readonly playback: {
    readonly pair: (seat: PairSeat | null) => void;
    readonly road: (road: 'cut' | 'gone' | 'open') => void;
    readonly hears: (text: string) => void;
    readonly lead: () => void;
    readonly turnsBox: (box: BoxTurn | null) => void;
    readonly awake: (is: boolean) => void;
  };
  /** One tab of this computer is one of the two: gives what ends that, or null where another tab is. */
  readonly takeTurn: () => Promise<(() => void) | null>;
  /** Whether this computer leads, as the playback told last; null before it told. */
  readonly leads: () => boolean | null;
  readonly show: () => Show | undefined;
  /** Puts the show of the other computer on the shelf, where it is not there yet. */
  readonly shelve: (show: Show) => Promise<void>;
  /** The open show becomes what the other computer has. */
  readonly become: (show: Show) => void;
  readonly sounds: Omit<PairSoundsNeeds, 'say' | 'behind'>;
  readonly keep: (row: PairRow | null) => void;
  readonly load: () => Promise<PairRow | undefined>;
  readonly now: () => Millis;
  /** Milliseconds of the page's clock. */
  readonly clock: () => number;
  readonly later: (run: () => void, millis: number) => () => void;
  readonly say: (text: string) => void;
}

export interface Pair {
  /** This computer leads, and lets another one follow it. */
  readonly letFollow: () => Promise<void>;
  readonly newCode: () => void;
  /** This computer follows the one at an address that shows a code. */
  readonly follow: (address: string, code: string) => Promise<void>;
  /** This computer is alone again. */
  readonly end: () => void;
  /** This computer leads from now on. */
  readonly lead: () => void;
  /** What turns a switch box to this computer; null for none. */
  readonly setBox: (box: BoxTurn | null) => void;
  /** A show was opened: a pair that was broken off by a reload, or a crash, goes on. */
  readonly resume: (showId: string) => Promise<void>;
  /** The playback has something to say to the other computer. */
  readonly peer: (message: FromPeer) => void;
  /** The show that is open is another one, or was edited; or who leads has changed. */
  readonly changed: () => void;
  /** The playback was started anew: it is told again. */
  readonly tellAgain: () => void;
  /** The page is hidden, as where a lid was closed, or seen again: one that is hidden does not take over by itself. */
  readonly hidden: (is: boolean) => void;
  /** Sets what keeps the open show as it is, at once: before the other computer's takes its place for the first time. */
  readonly keepsOwn: (keep: () => void) => void;
}

export function createPair(needs: PairNeeds): Pair {
  const { store, playback, say } = needs;
  let line: LineOut | null = null;
  let row: PairRow | null = null;
  /** The show as it was told last, and the way that it comes in. */
  let told: Show | undefined;
  let telling: (() => void) | null = null;
  let mirror = new ShowMirror();
  let theirs: Show | null = null;
  let seat: PairSeat | null = null;
  let letGo: (() => void) | null = null;
  let isHidden = false;
  /** The show that was met here and is the other computer's since; and what keeps it as it was before. */
  let metId: string | null = null;
  let keepOwn: () => void = () => undefined;

  const sounds = createPairSounds({
    ...needs.sounds,
    say: (message) => line?.say(forPeer(message)),
    behind: () => line?.behind() ?? 0,
  });
  const leads = (): boolean => needs.leads() ?? seat?.leads ?? true;
  const keep = (change: Partial<PairRow>): void => {
    if (!row) return;
    row = { ...row, ...change, when: needs.now() };
    needs.keep(row);
  };
  const sit = (next: PairSeat | null): void => {
    seat = next;
    playback.pair(next);
    if (isHidden) playback.awake(false);
  };
  const boxIs = (box: BoxTurn | null): void => {
    store.setState({ box });
    playback.turnsBox(box);
  };
  const there = (is: boolean): void => {
    store.setState({ isThere: is });
    told = undefined;
    sounds.stop();
    playback.road(is ? 'open' : 'gone');
    if (is) tellShow();
  };

  /** Whoever leads tells the show, and each edit of it. */
  const tellShow = (): void => {
    const show = needs.show();
    if (!show || !line || !leads() || !store.getState().isThere || show === told) return;
    if (row && show.id !== row.showId) keep({ showId: show.id });
    line.say(forPeer({ kind: 'show', ...updateOf(told, show) }));
    told = show;
  };

  const takeShow = (update: ShowUpdate): void => {
    try {
      mirror.update(update);
      const { value, problems } = readShowData(mirror.show);
      if (!value) return say(problems.map(problemLine)[0] ?? said.showUnread());
      theirs = value;
    } catch {
      // What changed came before the whole: that comes too.
      return;
    }
    keep({ showId: theirs.id });
    if (needs.show()?.id === theirs.id) settle();
    else void needs.shelve(theirs).then(() => store.setState({ showId: theirs?.id ?? null }));
  };
  /** The open show is what the other computer has. */
  const settle = (): void => {
    if (!theirs || leads() || needs.show()?.id !== theirs.id) return;
    if (metId !== theirs.id && sharing(needs.show()!, theirs) !== needs.show()) keepOwn();
    metId = theirs.id;
    needs.become(theirs);
    void sounds.ask(theirs).catch(() => undefined);
  };

  /** What the other computer says; true where it was that. */
  const isPeer = (text: string): boolean => {
    if (!isForPeer(text)) return false;
    const json = peerText(text);
    const update = json.startsWith('{"kind":"show"') ? readLine(peerShowSchema, json) : undefined;
    if (sounds.hear(json)) return true;
    if (!update) playback.hears(json);
    else if (!leads()) takeShow(update as unknown as ShowUpdate);
    return true;
  };

  const lost = (): void => {
    store.setState((s) => ({ line: s.line === 'open' ? 'opening' : 'unreachable', isThere: false, code: null }));
    playback.road('cut');
  };

  const openFirst = (): void => {
    line = needs.openLine('/share/first', {
      opened: () => {
        store.setState({ line: 'open' });
        if (row?.pass) line?.say(JSON.stringify({ kind: 'pass', pass: row.pass }));
        else line?.say(JSON.stringify({ kind: 'new-code' }));
      },
      text: (text) => {
        if (isPeer(text)) return;
        const message = readLine(toFirstSchema, text);
        if (message?.kind === 'code') {
          const { code, seconds } = message;
          store.setState({ code: { text: code, seconds, until: needs.clock() + seconds * 1000 }, wrongCodes: 0 });
        } else if (message?.kind === 'wrong-codes') {
          store.setState((s) => ({ wrongCodes: s.wrongCodes + message.count }));
        } else if (message?.kind === 'addresses') store.setState({ addresses: message.addresses });
        else if (message?.kind === 'let-in') {
          keep({ pass: message.pass });
          store.setState({ code: null });
        } else if (message?.kind === 'peer') there(message.there);
        else if (message?.kind === 'taken') taken();
      },
      lost,
    });
  };

  const openSecond = (address: string, code: string | null): void => {
    line = needs.openLine('/share/follow', {
      opened: () => {
        line?.say(JSON.stringify({ kind: 'reach', address }));
        line?.say(JSON.stringify(row?.pass ? { kind: 'back', pass: row.pass } : { kind: 'join', code: code ?? '' }));
      },
      text: (text) => {
        if (isPeer(text)) return;
        const message = readLine(toSecondSchema, text);
        if (message?.kind === 'joined') {
          if (!seat) sit({ first: false, leads: false });
          keep({ pass: message.pass });
          store.setState({ line: 'open', refusal: null });
        } else if (message?.kind === 'peer') there(message.there);
        else if (message?.kind === 'taken') taken();
        else if (message?.kind === 'refused') {
          const { why } = message;
          // One that was in comes in again as soon as the other computer is there.
          if (why === 'unreachable' && seat) return;
          if (why === 'often' && seat) return;
          const refusal = PAIR_REFUSALS[why];
          end();
          store.setState({ refusal });
        }
      },
      lost,
    });
  };

  /** Another browser of this machine took this one's place. */
  const taken = (): void => {
    end();
    say(said.pairTaken());
  };

  /** Sits down as one of two; false where another tab sits there, which is said where somebody wanted it. */
  const begin = async (next: PairRow, isAsked: boolean): Promise<boolean> => {
    end();
    letGo = await needs.takeTurn();
    if (!letGo) {
      if (isAsked) say(said.pairElsewhere());
      return false;
    }
    row = next;
    mirror = new ShowMirror();
    [theirs, metId] = [null, null];
    store.setState({ ...ALONE, seat: next.seat });
    return true;
  };

  function end(): void {
    telling?.();
    telling = null;
    if (seat) {
      // The other one need not wait whether this one comes back.
      line?.say(forPeer({ kind: 'bye' }));
      if (row?.seat === 'first') line?.say(JSON.stringify({ kind: 'end' }));
      sit(null);
    }
    line?.end();
    line = null;
    told = undefined;
    if (row) needs.keep(null);
    row = null;
    letGo?.();
    letGo = null;
    store.setState(ALONE);
  }

  const fresh = (which: PairRow['seat'], address: string): PairRow => ({
    seat: which,
    address,
    pass: null,
    showId: needs.show()?.id ?? null,
    when: needs.now(),
    box: null,
  });

  return {
    letFollow: async () => {
      if (!(await begin(fresh('first', ''), true))) return;
      sit({ first: true, leads: true });
      needs.keep(row);
      openFirst();
    },
    newCode: () => line?.say(JSON.stringify({ kind: 'new-code' })),
    follow: async (address, code) => {
      if (await begin(fresh('second', address), true)) openSecond(address, code);
    },
    end,
    lead: () => playback.lead(),
    setBox: (box) => {
      keep({ box: box && { portId: box.portId, bytes: [...box.bytes] } });
      boxIs(box);
    },
    resume: async (showId) => {
      if (row) return;
      const kept = await needs.load();
      if (!kept || row || kept.showId !== showId || kept.pass === null) return;
      if (needs.now() - kept.when > A_NIGHT) return needs.keep(null);
      if (!(await begin(kept, false))) return;
      // What the other one made of it meanwhile, that one says.
      sit({ first: kept.seat === 'first', leads: false });
      boxIs(kept.box);
      if (kept.seat === 'first') openFirst();
      else openSecond(kept.address, null);
    },
    peer: (message) => line?.say(forPeer(message)),
    changed: () => {
      if (!row) return;
      // What the other one had before this one led is old: it tells anew what it makes of it.
      if (leads()) theirs = null;
      else settle();
      telling ??= needs.later(() => {
        telling = null;
        tellShow();
      }, TELL_EVERY);
    },
    keepsOwn: (run) => {
      keepOwn = run;
    },
    hidden: (is) => {
      isHidden = is;
      if (seat) playback.awake(!is);
    },
    tellAgain: () => {
      if (!seat) return;
      sit({ ...seat, leads: false });
      playback.turnsBox(store.getState().box);
      playback.road(store.getState().isThere ? 'open' : 'cut');
    },
  };
}
