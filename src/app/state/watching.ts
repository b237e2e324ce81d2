import { tabStore } from '../adapters/tabStore';
import { create } from 'zustand';
import { readShowData } from '../../core/formats/show-file';
import { readLine, toScreenSchema, type StageNews } from '../../core/formats/line';
import { problemLine, said, JOIN_REFUSALS } from '../../wording';
import { UNKNOWN_STATE, type RigState } from '../../core/rig';
import { setCaret } from './caret';
import { openLine, type LineEars, type LineOut } from '../adapters/line';
import { NO_NEWS, useNews } from './news';
import { useApp } from './store';
import './letters';

/** A screen that shows the stage of a desk elsewhere. */
export interface Watching {
  readonly state: 'asking' | 'joining' | 'in';
  /** Why it was not let in; null before. */
  readonly refusal: string | null;
  /** Since when the line is lost, in milliseconds of the page's clock; null while it stands. */
  readonly lostSince: number | null;
  readonly desk: boolean;
  readonly wrong: StageNews['wrong'];
}

const ASKING: Watching = { state: 'asking', refusal: null, lostSince: null, desk: true, wrong: null };

export const useWatching = create<Watching>(() => ASKING);

/** What a screen was given when it joined: for this tab, as long as it lives. */
const KEY = 'hollow-lantern.pass';

let line: LineOut | null = null;

function hear(text: string): void {
  const message = readLine(toScreenSchema, text);
  if (!message) return;
  switch (message.kind) {
    case 'joined':
      tabStore.set(KEY, message.pass);
      useWatching.setState({ state: 'in', refusal: null, lostSince: null });
      break;
    case 'refused':
      if (message.why === 'pass') tabStore.remove(KEY);
      leave();
      useWatching.setState({ ...ASKING, refusal: JOIN_REFUSALS[message.why] });
      break;
    case 'desk':
      useWatching.setState({ desk: message.there });
      break;
    case 'show': {
      const { value, problems } = readShowData(message.show);
      if (value) {
        useApp.setState({ open: { show: value, revision: null, past: [], future: [], save: 'saved' }, refusal: null });
      } else useWatching.setState({ refusal: problems.map(problemLine)[0] ?? said.showUnread() });
      break;
    }
    case 'news': {
      const { wrong, begins, rig, ...news } = message.news;
      const known = Object.entries(rig).map(([id, on]) => [id, { ...UNKNOWN_STATE, ...on }]);
      useNews.setState({ news: { ...NO_NEWS, ...news, rig: Object.fromEntries(known) as RigState } });
      if (news.songId !== null) setCaret(news.songId, begins);
      useWatching.setState({ wrong });
    }
  }
}

/** Joins with a code, or with what this tab was given before. */
export function join(code: string | null): void {
  leave();
  useWatching.setState({ ...ASKING, state: 'joining' });
  const ears: LineEars = {
    opened: () => {
      const pass = tabStore.get(KEY);
      if (pass !== null) line?.send({ kind: 'back', pass });
      else if (code !== null) line?.send({ kind: 'join', code });
    },
    text: hear,
    lost: () => useWatching.setState((s) => (s.lostSince === null ? { lostSince: performance.now() } : {})),
  };
  line = openLine('/share/screen', ears, true);
}

export function leave(): void {
  line?.end();
  line = null;
}

/** Whether this tab was in before, and may come back without a code. */
export const wasIn = (): boolean => tabStore.get(KEY) !== null;
