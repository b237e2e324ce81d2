import { create, type StoreApi } from 'zustand';
import { songEntries, type Show } from '../../core/show';
import type { Millis } from '../../core/time';
import type { Remembered } from '../../playback';
import { said } from '../../wording';

/** The show that is on for its audience in this tab. */
export interface NightState {
  /** The id of its list of what was played; null while the show is rehearsed. */
  readonly id: string | null;
  /** Milliseconds from the epoch. */
  readonly begun: Millis;
}

export const useNight = create<NightState>(() => ({ id: null, begun: 0 }));

export interface NightNeeds {
  readonly store: Pick<StoreApi<NightState>, 'getState' | 'setState'>;
  readonly show: () => Show | undefined;
  readonly now: () => Millis;
  readonly newId: () => string;
  readonly say: (text: string) => void;
  /** Has the show on in this tab alone; gives what ends that, or null where another tab plays. */
  readonly takeTurn: () => Promise<(() => void) | null>;
  /** Tells the playback; `remembered` is what was played before a crash. */
  readonly tell: (id: string | null) => Promise<unknown>;
  readonly tellRemembered: (remembered: Remembered) => Promise<unknown>;
  readonly stop: () => Promise<void>;
  readonly select: (songId: string, place: number, entryId: string) => Promise<void>;
  /** Nothing that was chosen for practice holds any longer. */
  readonly endPractice: () => void;
  /** Stand-ins no longer answer beside real ports, or do again. */
  readonly bindAgain: () => void;
  /** What came from other tabs meanwhile is taken now. */
  readonly over: () => void;
  /** Whether another computer leads: it begins its show, and ends it. */
  readonly follows: () => boolean;
}

export interface Night {
  /** The show begins: practice ends, and the rig is brought to its first song. False where it could not. */
  readonly start: () => Promise<boolean>;
  readonly end: () => Promise<void>;
  /** A show was opened: it goes on as it is remembered, also amid a show. */
  readonly remember: (remembered: Remembered, begun: Millis) => Promise<void>;
  /** The playback was started anew: it is told again. */
  readonly tellAgain: () => void;
  /** Another show is opened: what was on is over. */
  readonly leave: () => Promise<void>;
}

export function createNight(needs: NightNeeds): Night {
  const { store, show } = needs;
  let letGo: (() => void) | null = null;
  const isOver = (): void => {
    letGo?.();
    letGo = null;
    store.setState({ id: null });
  };
  return {
    start: async () => {
      const open = show();
      if (!open || store.getState().id !== null) return false;
      if (needs.follows()) {
        needs.say(said.playedThere());
        return false;
      }
      await needs.stop();
      letGo = await needs.takeTurn();
      if (!letGo) {
        needs.say(said.otherTabPlays());
        return false;
      }
      needs.endPractice();
      const id = needs.newId();
      store.setState({ id, begun: needs.now() });
      needs.bindAgain();
      await needs.tell(id);
      const first = songEntries(open)[0];
      if (first) await needs.select(first.songId, 0, first.id);
      return true;
    },
    end: async () => {
      if (store.getState().id === null) return;
      if (needs.follows()) return needs.say(said.playedThere());
      await needs.tell(null);
      isOver();
      needs.bindAgain();
      needs.over();
    },
    remember: async (remembered, begun) => {
      if (remembered.night !== null) {
        letGo ??= await needs.takeTurn();
        // Another tab has it on by now.
        if (!letGo) return;
        needs.endPractice();
        store.setState({ id: remembered.night, begun });
        needs.bindAgain();
      }
      await needs.tellRemembered(remembered);
    },
    tellAgain: () => {
      const { id } = store.getState();
      if (id !== null) void needs.tell(id);
    },
    leave: async () => {
      if (store.getState().id === null) return;
      await needs.stop();
      await needs.tell(null);
      isOver();
    },
  };
}
