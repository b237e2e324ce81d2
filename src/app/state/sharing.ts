import { create } from 'zustand';
import { TOLD_SONGS, readLine, toDeskSchema, type FromDesk, type StageNews } from '../../core/formats/line';
import { indexShow, type Show } from '../../core/show';
import { tonightOf } from '../../core/tonight';
import { openLine, type LineOut } from '../adapters/line';
import { songStanding, startOf, useCaret } from './caret';
import { songMark } from './marks';
import { useJournal } from './journal';
import { useNews } from './news';
import { usePorts } from './ports';
import { useProofs } from './proofs';
import { soundTrouble, useHearing } from './hearing';
import { isCodeLost, pairTrouble, stageWrong } from './stageWrong';
import { useApp } from './store';

/** Whether the stage of this desk is passed on to screens elsewhere. */
export interface Sharing {
  readonly state: 'off' | 'opening' | 'open' | 'unreachable' | 'taken';
  readonly code: { readonly text: string; readonly until: number; readonly seconds: number } | null;
  readonly screens: number;
  readonly addresses: readonly string[];
  /** Wrong codes that were tried since the last one was made. */
  readonly wrongCodes: number;
}

const OFF: Sharing = { state: 'off', code: null, screens: 0, addresses: [], wrongCodes: 0 };

export const useSharing = create<Sharing>(() => OFF);

/** Screens are told so often, in milliseconds: a bar is longer. */
const NEWS_EVERY = 100;
/** While more than this waits to leave, no news are added. */
const BEHIND = 200_000;

let line: LineOut | null = null;
let stopFollowing: (() => void) | null = null;

const say = (message: FromDesk): void => line?.send(message);

/** Where the stage is, as a screen draws it. */
function stageNews(): StageNews {
  const { news } = useNews.getState();
  const { playing, place, from, night, entryId, queued, following, history } = news;
  const caret = useCaret.getState();
  const songId = songStanding({ ...news, isShowOn: news.night !== null }, caret);
  const show = useApp.getState().open?.show;
  const song = show && songId !== null ? indexShow(show).songs.get(songId) : undefined;
  const mark = song ? songMark(useProofs.getState(), song) : 'hollow';
  const wrong = show
    ? stageWrong(show, mark, {
        ...usePorts.getState(),
        sound: soundTrouble(useHearing.getState()),
        codeLost: isCodeLost(news),
        pair: pairTrouble(news),
        forgets: useJournal.getState().fails,
      })
    : null;
  return {
    playing,
    songId,
    place,
    from,
    begins: songId === null ? 0 : startOf(caret, songId),
    night,
    entryId,
    queued,
    following,
    history: history.slice(-TOLD_SONGS),
    rig: Object.fromEntries(Object.entries(news.rig).map(([id, { slot, variant }]) => [id, { slot, variant }])),
    wrong,
  };
}

/** Recordings and what is not on stage stay here. */
const showOfStage = (show: Show): Show => ({
  ...tonightOf(show),
  // It is as tonight has it already.
  sets: show.sets.map((s) => ({ ...s, tonight: [] })),
  audio: show.audio,
  reactions: [],
});

function follow(): () => void {
  let sent: Show | undefined;
  let last = '';
  const tellShow = (): void => {
    const show = useApp.getState().open?.show;
    if (!show || show === sent) return;
    sent = show;
    say({ kind: 'show', show: showOfStage(show) });
    last = '';
  };
  const tellNews = (): void => {
    const news = stageNews();
    const text = JSON.stringify(news);
    if (text === last || (line?.behind() ?? 0) > BEHIND) return;
    last = text;
    say({ kind: 'news', news });
  };
  tellShow();
  const timer = setInterval(() => {
    tellShow();
    tellNews();
  }, NEWS_EVERY);
  return () => clearInterval(timer);
}

/** Passes the stage on from now on. */
export function startSharing(): void {
  if (line) return;
  useSharing.setState({ ...OFF, state: 'opening' });
  let opened = false;
  line = openLine('/share/desk', {
    opened: () => {
      opened = true;
      useSharing.setState({ state: 'open', code: null });
      stopFollowing?.();
      stopFollowing = follow();
      say({ kind: 'new-code' });
    },
    text: (text) => {
      const message = readLine(toDeskSchema, text);
      if (message?.kind === 'code') {
        const { code, seconds } = message;
        const until = performance.now() + seconds * 1000;
        useSharing.setState({ code: { text: code, seconds, until }, wrongCodes: 0 });
      } else if (message?.kind === 'wrong-codes') {
        const { count } = message;
        useSharing.setState((s) => ({ wrongCodes: s.wrongCodes + count }));
      } else if (message?.kind === 'screens') {
        // A code that was used lets in nobody else.
        const joined = message.count > useSharing.getState().screens;
        useSharing.setState({ screens: message.count, ...(joined ? { code: null } : {}) });
      } else if (message?.kind === 'addresses') useSharing.setState({ addresses: message.addresses });
      else if (message?.kind === 'taken') {
        stopSharing();
        useSharing.setState({ state: 'taken' });
      }
    },
    lost: () => {
      stopFollowing?.();
      stopFollowing = null;
      useSharing.setState({ state: opened ? 'opening' : 'unreachable', code: null, screens: 0 });
    },
  });
}

export function stopSharing(): void {
  stopFollowing?.();
  stopFollowing = null;
  line?.end();
  line = null;
  useSharing.setState(OFF);
}

/** Lets all screens go; each needs a new code to come back. */
export const endScreens = (): void => say({ kind: 'end-screens' });

/** A code for one more screen. */
export const newCode = (): void => say({ kind: 'new-code' });
