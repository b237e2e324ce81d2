import type { Show } from '../../core/show';
import type { Saved } from '../persistence/shows';
import type { ShowDocument } from './document';
import type { OpenShow } from './store';

/** An edit is on disk this long after it was made, whatever happens then. */
export const SAVE_DELAY = 150;
/** A store that refuses is tried again this often: there may be room. */
const TRY_AGAIN = 5000;

/** A show that lies on the shelf. `lifted`: of an older version, so that no row of it is as it was read. */
export interface LyingShow {
  readonly show: Show;
  readonly revision: number;
  readonly lifted: boolean;
}

/** What saving needs of the shelf and of the machine. */
export interface SavingNeeds {
  readonly open: () => OpenShow | null;
  readonly document: ShowDocument;
  /** `before` is what lies on the shelf, where that is known: what did not change need not be written. */
  readonly save: (show: Show, base: number | null, now: number, before: Show | null) => Promise<Saved>;
  /** The show as it lies there; undefined where it is gone or cannot be read. */
  readonly load: (id: string) => Promise<LyingShow | undefined>;
  readonly now: () => number;
  /** Whether nothing of the show may change now, because it is on for its audience. */
  readonly isHeldOff: () => boolean;
  /** Runs something later; gives what calls it off. */
  readonly later: (run: () => void, millis: number) => () => void;
}

/** Keeps the open show on the shelf. What another tab saved is never written over, and never lost. */
export interface Saving {
  /** A show was opened that lies on the shelf like this. */
  readonly opened: (there: LyingShow) => void;
  /** Something changed: it is saved soon. */
  readonly soon: () => void;
  /** Saves what is not saved. Calls wait for each other, so that a revision is never used twice. */
  readonly now: () => Promise<void>;
  /** Another tab saved: what it saved is taken over, unless something here is not saved yet. Undefined: the show is there no more. */
  readonly follow: (revision: number | undefined) => Promise<void>;
  /** What another tab saved while a show was on is taken now that it is over. */
  readonly followLater: () => Promise<void>;
  /** Takes what another tab saved in place of what is here; undo brings back what was here. */
  readonly takeTheirs: () => Promise<void>;
  /** Saves what is here as if for the first time, where it is not there any more. */
  readonly anew: () => Promise<void>;
}

export function createSaving({ open, document, save, load, now, isHeldOff, later }: SavingNeeds): Saving {
  let saving: Promise<void> = Promise.resolve();
  let callOff: (() => void) | undefined;

  const soon = (millis: number): void => {
    callOff?.();
    callOff = later(() => void saveNow(), millis);
  };

  /** What lies on the shelf, and under which revision. */
  let lying: { readonly show: Show; readonly revision: number } | null = null;
  const lies = ({ show, revision, lifted }: LyingShow): void => {
    // The frame is saved with its new version: songs that stayed as they were would be of the old one beside it.
    const songs = lifted ? show.songs.map((s) => ({ ...s })) : show.songs;
    lying = { show: { ...show, songs }, revision };
  };
  const before = (show: Show, revision: number | null): Show | null =>
    lying && lying.show.id === show.id && lying.revision === revision ? lying.show : null;

  const saveOnce = async (): Promise<void> => {
    const is = open();
    if (!is || is.save === 'saved' || is.save === 'conflict' || is.save === 'gone') return;
    const { show, revision } = is;
    let saved: Saved;
    try {
      saved = await save(show, revision, now(), before(show, revision));
    } catch {
      if (open()?.show.id === show.id) document.change({ save: 'failed' });
      soon(TRY_AGAIN);
      return;
    }
    if (saved.kind === 'saved') lying = { show, revision: saved.revision };
    // Another show may be open by now.
    if (open()?.show.id !== show.id) return;
    if (saved.kind !== 'saved') document.change({ save: saved.kind });
    else document.change({ revision: saved.revision, save: open()?.show === show ? 'saved' : 'unsaved' });
  };

  const saveNow = (): Promise<void> => {
    callOff?.();
    saving = saving.then(saveOnce);
    return saving;
  };

  const take = async (): Promise<void> => {
    const is = open();
    const theirs = is && (await load(is.show.id));
    if (theirs && open()?.show.id === theirs.show.id) {
      document.replace(theirs.show, theirs.revision, 'take what another tab saved');
      lies({ ...theirs, show: open()!.show });
    }
  };

  /** The newest revision that another tab saved while a show was on. */
  let heldOff: { readonly revision: number | undefined } | null = null;

  const follow: Saving['follow'] = async (revision) => {
    await saving;
    const is = open();
    if (!is || is.revision === null) return;
    if (isHeldOff()) {
      heldOff = { revision };
      return;
    }
    if (revision === undefined) {
      document.change({ save: 'gone' });
      return;
    }
    if (revision <= is.revision) return;
    if (is.save === 'saved') await take();
    else document.change({ save: 'conflict' });
  };

  return {
    opened: lies,
    soon: () => soon(SAVE_DELAY),
    now: saveNow,
    follow,
    followLater: async () => {
      const held = heldOff;
      heldOff = null;
      if (held) await follow(held.revision);
    },
    takeTheirs: take,
    anew: () => {
      lying = null;
      document.change({ revision: null, save: 'unsaved' });
      return saveNow();
    },
  };
}
