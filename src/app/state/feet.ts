import { create, type StoreApi } from 'zustand';
import { fromHex, toHex, type Bytes } from '../../core/midi';
import type { FootSwitch, Show } from '../../core/show';
import type { Device } from '../persistence/rows';

export interface FeetState {
  /** What controllers of the open show are known to hold; those that are not named were never heard. */
  readonly held: Readonly<Record<string, Bytes>>;
  /** What was ticked off of the lists that are typed into controllers. */
  readonly typed: readonly string[];
  /** Switches that were copied, until the page is left. */
  readonly copied: readonly FootSwitch[];
}

export const useFeet = create<FeetState>(() => ({ held: {}, typed: [], copied: [] }));

type Kept = Pick<Device, 'controllers' | 'typed'>;

export interface FeetNeeds {
  readonly store: Pick<StoreApi<FeetState>, 'getState' | 'setState'>;
  readonly load: () => Promise<Partial<Kept>>;
  readonly keep: <K extends keyof Kept>(key: K, value: Device[K]) => Promise<unknown>;
  /** Puts into a stand-in what it held when it was here last. */
  readonly fill: (unitId: string, bytes: Bytes) => Promise<void>;
}

/** What this computer knows of foot controllers: what each holds, and what was typed into those that take nothing. */
export function createFeet({ store, load, keep, fill }: FeetNeeds) {
  let showId = '';
  const write = async <K extends keyof Kept>(key: K, value: Kept[K][string]): Promise<void> => {
    try {
      const all = (await load())[key] ?? {};
      await keep(key, { ...all, [showId]: value });
    } catch {
      // It holds until the page is left.
    }
  };
  const fillAll = (): void => {
    for (const [unitId, bytes] of Object.entries(store.getState().held)) void fill(unitId, bytes);
  };
  return {
    /** Another show is open: its controllers hold what they held. */
    follow: async (show: Show): Promise<void> => {
      if (show.id === showId) return;
      showId = show.id;
      store.setState({ held: {}, typed: [] });
      const { controllers, typed } = await load().catch((): Partial<Kept> => ({}));
      if (showId !== show.id) return;
      const held = Object.entries(controllers?.[show.id] ?? {}).map(([id, hex]) => [id, fromHex(hex) ?? []] as const);
      store.setState({ held: Object.fromEntries(held), typed: typed?.[show.id] ?? [] });
      fillAll();
    },
    /** The playback was started anew. */
    tellAgain: fillAll,
    /** A controller is known to hold something. */
    holds: (unitId: string, bytes: Bytes): void => {
      const held = { ...store.getState().held, [unitId]: bytes };
      store.setState({ held });
      void write('controllers', Object.fromEntries(Object.entries(held).map(([id, b]) => [id, toHex(b)])));
    },
    /** Ticks a line of a list off, or on again. */
    tick: (key: string, done: boolean): void => {
      const others = store.getState().typed.filter((k) => k !== key);
      const typed = done ? [...others, key] : others;
      store.setState({ typed });
      void write('typed', [...typed]);
    },
  };
}
