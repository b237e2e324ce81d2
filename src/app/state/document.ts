import type { StoreApi } from 'zustand';
import { newNoLetter } from '../../core/letters';
import { applyEdit, invertEdit, sharing, type Edit, type Show } from '../../core/show';
import { noLetterSentence } from '../../wording';
import type { AppState, Done, OpenShow } from './store';

const UNDO_LIMIT = 500;

/** The show that is open: what edits make of it, and the way back and forth. */
export interface ShowDocument {
  readonly show: () => Show | undefined;
  /**
   * Does an edit and keeps the way back. A null edit (nothing would change) does nothing. While edits are held off it
   * is not done and that is said, unless it is one of those that a night needs: `forTonight`. Nor is one that brings a
   * letter that no file and no display can carry.
   */
  readonly perform: (edit: Edit | null, label: string, forTonight?: boolean) => boolean;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Another show takes the place of what was open. */
  readonly enter: (show: Show, revision: number | null) => void;
  /** What another tab saved takes the place of what is here; it can be undone like an edit. */
  readonly replace: (show: Show, revision: number, label: string) => void;
  /** Another state of the same show takes the place of what is here, as an edit; also where edits are held off, if it has to. False where they are the same. */
  readonly become: (show: Show, label: string, hasTo?: boolean) => boolean;
  readonly change: (change: Partial<Omit<OpenShow, 'show'>>) => void;
  readonly say: (text: string) => void;
}

const NOTHING_OPEN: { readonly show: undefined } & Pick<OpenShow, 'past' | 'future'> = {
  show: undefined,
  past: [],
  future: [],
};

/** `onChange` is called after each change of the show; `heldOff` says why nothing may be edited now, or gives null. */
export function createDocument(
  store: Pick<StoreApi<AppState>, 'getState' | 'setState'>,
  onChange: (show: Show) => void,
  heldOff: (forTonight: boolean) => string | null = () => null,
): ShowDocument {
  const open = (): OpenShow | null => store.getState().open;
  const set = (change: Partial<OpenShow>): void => {
    const now = open();
    if (now) store.setState({ open: { ...now, ...change } });
  };
  const done = (show: Show, way: Pick<OpenShow, 'past' | 'future'>): void => {
    const was = open()?.save;
    // What somebody has to decide first stays so.
    const save = was === 'conflict' || was === 'gone' ? was : 'unsaved';
    set({ show, ...way, save });
    onChange(show);
  };
  const say = (text: string): void => store.setState({ note: text.trim() === '' ? null : text });
  /** Says so where edits are held off. */
  const isHeld = (forTonight: boolean): boolean => {
    const why = heldOff(forTonight);
    if (why !== null) say(why);
    return why !== null;
  };
  /** Does an edit; one that is `typed` may bring no letter that can be carried nowhere. A file may have had one. */
  const make = (edit: Edit | null, label: string, forTonight: boolean, typed: boolean, hasTo = false): boolean => {
    const now = open();
    if (!edit || !now || (!hasTo && isHeld(forTonight))) return false;
    const show = applyEdit(now.show, edit);
    const odd = typed ? newNoLetter(now.show, show) : undefined;
    if (odd) {
      say(noLetterSentence(odd));
      return false;
    }
    store.setState({ note: null });
    const last: Done = forTonight ? { edit, label, forTonight } : { edit, label };
    done(show, { past: [...now.past, last].slice(-UNDO_LIMIT), future: [] });
    return true;
  };
  return {
    show: () => open()?.show,
    change: set,
    perform: (edit, label, forTonight = false) => make(edit, label, forTonight, true),
    become: (other, label, hasTo = false) => {
      const now = open();
      if (!now) return false;
      const show = sharing(now.show, { ...other, id: now.show.id });
      return show !== now.show && make(wholeEdit(now.show, show), label, false, false, hasTo);
    },
    say,
    enter: (show, revision) => {
      const save = revision === null ? 'unsaved' : 'saved';
      store.setState({ open: { show, revision, past: [], future: [], save }, refusal: null, note: null });
      onChange(show);
    },
    replace: (theirs, revision, label) => {
      const now = open();
      if (!now) return;
      const show = sharing(now.show, theirs);
      const past = [...now.past, { edit: wholeEdit(now.show, show), label }].slice(-UNDO_LIMIT);
      store.setState({ open: { show, revision, past, future: [], save: 'saved' } });
      onChange(show);
    },
    undo: () => {
      const { show, past, future } = open() ?? NOTHING_OPEN;
      const last = past.at(-1);
      if (show && last && !isHeld(last.forTonight === true))
        done(applyEdit(show, invertEdit(last.edit)), { past: past.slice(0, -1), future: [last, ...future] });
    },
    redo: () => {
      const { show, past, future } = open() ?? NOTHING_OPEN;
      const [next, ...rest] = future;
      if (show && next && !isHeld(next.forTonight === true))
        done(applyEdit(show, next.edit), { past: [...past, next], future: rest });
    },
  };
}

/** One show becomes another, as an edit: each part that differs is set. */
function wholeEdit(from: Show, to: Show): Edit {
  const keys = (Object.keys(to) as (keyof Show)[]).filter((key) => from[key] !== to[key]);
  return {
    kind: 'group',
    edits: keys.map((key) => ({ kind: 'set', path: [key], before: from[key], after: to[key] })),
  };
}
