import { Redo2, Undo2 } from 'lucide-react';
import { Suspense, memo, useCallback, useEffect } from 'react';
import { Link, Navigate, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { tinykeys } from 'tinykeys';
import { keepAsCopy, saveAnew, takeSaved, deleteDamaged, exportDamaged } from '../state/desk';
import { doAgain, takeBack } from '../state/takeBack';
import { dropFile } from '../state/dropped';
import { timesBasis } from '../../core/meaning';
import { listWords } from '../../wording';
import { useShowMark } from '../state/marks';
import { useProofs } from '../state/proofs';
import { useApp, useShow } from '../state/store';
import { useOpenShow } from '../state/useOpenShow';
import { useFocusKeeper } from '../state/useFocusKeeper';
import { narrow } from '../theme/narrow';
import { desk, font } from '../theme/tokens';
import { Button, MainButton, SignButton } from '../widgets/controls';
import { DropAnywhere } from '../features/DropAnywhere';
import { CommandFinder } from './finder/CommandFinder';
import { LightMenu } from './LightMenu';
import { ExportReminder } from './ExportReminder';
import { FirstSteps } from './FirstSteps';
import { Renew } from './Renew';
import { ShowIsOn } from './ShowIsOn';
import { TonightDiffers } from './TonightDiffers';
import { FollowShow } from '../features/FollowShow';
import { GoOn } from '../features/GoOn';
import { KeysHelp } from '../features/KeysHelp';
import { LampStrip } from './LampStrip';
import { LanternMark, lanternWords } from '../widgets/LanternMark';
import { ViewBoundary } from './ViewBoundary';
import { exportShow } from '../state/exports';
import { Note } from './Note';
import { CountingSwitch } from './CountingSwitch';
import { HeadSlip, Quiet } from '../widgets/shellParts';
import { takesText } from '../widgets/takesText';
import { useEscape } from './useEscape';
import { useRegions } from './useRegions';
import { VIEWS, pathOf } from '../features/views';
import { ViewTabs } from './ViewTabs';
import type { Show } from '../../core/show';
import type { Lantern } from '../../core/simulate';
import { AllFindings } from '../features/AllFindings';
import { SET_WORDS } from '../features/setWords';

const Frame = styled.div`
  height: 100dvh;
  display: flex;
  flex-direction: column;
  @media print {
    display: block;
    height: auto;
  }
  /* The page scrolls, so that the view itself has nearly the whole window. */
  ${narrow} {
    height: auto;
    min-height: 100dvh;
  }
`;

/** What is between the head and the foot: the view, and the dividers at its right. */
const Middle = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template: minmax(0, 1fr) / minmax(0, 1fr) 46px;
  @media print {
    display: block;
  }
  ${narrow} {
    display: flex;
    flex-direction: column-reverse;
    & > main {
      height: calc(100dvh - 76px);
    }
  }
`;

const Head = styled.header`
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 7px 14px 7px 16px;
  border-bottom: 1.5px solid ${desk.ink};
  background: ${desk.paper};
  ${narrow} {
    flex-wrap: wrap;
    gap: 4px 10px;
  }
`;

const Title = styled(Link)`
  display: flex;
  align-items: center;
  gap: 9px;
  min-width: 0;
  color: ${desk.ink};
  text-decoration: none;
  font: 700 20px/1.1 ${font.display};
  & > span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** Lit where something is wrong, a dashed outline where something is only unfinished. */
const HeadCount = styled(AriaButton)<{ $wrong: boolean }>`
  padding: 3px 10px;
  border: 1.5px ${(p) => (p.$wrong ? 'solid' : 'dashed')} ${desk.ink};
  border-radius: 3px 11px 3px 11px;
  background: ${(p) => (p.$wrong ? desk.lampWash : 'transparent')};
  color: ${desk.ink};
  font: 700 13px/1.3 ${font.text};
  white-space: nowrap;
  cursor: pointer;
`;

const Gap = styled.span`
  flex: 1;
`;

const Main = styled.main`
  min-width: 0;
  min-height: 0;
  overflow: auto;
  /* What is brought into sight, as by Tab, comes to stand above the note. */
  scroll-padding-bottom: 64px;
  outline: none;
`;

const Notice = styled(HeadSlip)`
  background: ${desk.rustWash};
  border-color: ${desk.rust};
  font-weight: 600;
`;

const Empty = styled.div`
  display: grid;
  place-content: center;
  gap: 14px;
  height: 100dvh;
  text-align: center;
  padding: 20px;
`;

const Skip = styled.a`
  position: fixed;
  left: 12px;
  top: -60px;
  z-index: 20;
  padding: 9px 14px;
  border-radius: 4px 12px 4px 12px;
  background: ${desk.night};
  color: ${desk.nightText};
  font-weight: 700;
  &:focus {
    top: 8px;
  }
`;

const SAVE_WORDS = {
  saved: 'Saved in this browser',
  unsaved: 'Saving …',
  conflict: 'Not saved: changed in another tab',
  gone: 'Not saved: deleted from this browser',
  failed: 'Not saved',
} as const;

/** Frame of all views of a show: title and counting above, dividers at the right, the lamp strip at the foot. */
export function Shell() {
  const { open, refusal } = useOpenShow();
  const { showId } = useParams();
  const only = useApp((s) => s.stageOnly);
  if (refusal !== null) {
    return (
      <Empty>
        <h1>This show cannot be opened</h1>
        <p>{refusal}</p>
        <p>
          <Link to="/">Back to all shows</Link>
        </p>
      </Empty>
    );
  }
  // For a stand-in player there is the stage, and nothing else.
  if (showId !== undefined && only.includes(showId)) return <Navigate to={`/show/${showId}/stage`} replace />;
  return open ? <OpenShell /> : null;
}

function OpenShell() {
  const show = useShow();
  const mark = useShowMark(show);
  const navigate = useNavigate();
  const base = `/show/${show.id}`;
  const { pathname } = useLocation();
  const trouble = useProofs((s) => s.trouble);
  useFocusKeeper();
  useRegions();
  useEscape();
  const onFile = useCallback(
    (file: File) => {
      dropFile(file);
      void navigate(`${base}/files/import`);
    },
    [base, navigate],
  );
  useEffect(
    () =>
      tinykeys(window, {
        '$mod+z': keyed(takeBack),
        '$mod+Shift+Z': keyed(doAgain),
        ...Object.fromEntries(
          VIEWS.map(({ path, key }) => [`Alt+Digit${key}`, keyed(() => void navigate(pathOf(base, path)))]),
        ),
      }),
    [base, navigate],
  );
  return (
    <Frame>
      <title>{`${viewName(pathname, base)} · ${show.title} · Hollow Lantern`}</title>
      <Skip href="#view">Skip to the view</Skip>
      <ShellHead show={show} base={base} mark={mark} />
      <ShowIsOn />
      <TonightDiffers />
      <SaveNotice />
      <Damaged />
      {trouble !== null && <Notice role="alert">Lanterns cannot be proven now: {trouble}</Notice>}
      <Renew />
      <ExportReminder />
      <FirstSteps />
      <Middle>
        <Main id="view" tabIndex={-1}>
          <Note />
          <GoOn />
          <FollowShow />
          <View />
        </Main>
        <ViewTabs base={base} />
      </Middle>
      <LampStrip />
      <KeysHelp />
      <DropAnywhere onFile={onFile} />
      <span hidden>{lanternWords(mark)}</span>
    </Frame>
  );
}

/** Whose times are guesses, where a show lands on time by them; nothing where all are known. */
function standsOnGuesses(show: Show): string {
  const { guess } = timesBasis(show);
  if (guess.length === 0) return '';
  return guess.length <= 2
    ? ` (times of ${listWords(guess.map((u) => u.name))} are guesses)`
    : ` (times of ${guess.length} units are guesses)`;
}

interface ShellHeadProps {
  readonly show: Show;
  readonly base: string;
  readonly mark: Lantern;
}

/** Which show is open, how it stands, and what is at hand in every view. */
function ShellHead({ show, base, mark }: ShellHeadProps) {
  const past = useApp((s) => s.open?.past.at(-1)?.label);
  const future = useApp((s) => s.open?.future[0]?.label);
  const save = useApp((s) => s.open?.save ?? 'saved');
  return (
    <Head>
      <Title to="/" title="All shows" aria-label={`${show.title}: to all shows`}>
        <LanternMark mark={mark} size={28} silent />
        <span>{show.title}</span>
      </Title>
      <Quiet>
        {SET_WORDS[mark]}
        {mark === 'lit' && standsOnGuesses(show)}
      </Quiet>
      <AllFindings
        renderTrigger={(words, open, wrong) => (
          <HeadCount $wrong={wrong > 0} hidden={open === 0} aria-label={`${words}: show them`}>
            {words}
          </HeadCount>
        )}
      />
      <Quiet role="status">{SAVE_WORDS[save]}</Quiet>
      <Gap />
      <SignButton
        aria-label={past === undefined ? 'Undo' : `Undo: ${past}`}
        isDisabled={past === undefined}
        onPress={takeBack}
      >
        <Undo2 size={18} />
      </SignButton>
      <SignButton
        aria-label={future === undefined ? 'Redo' : `Redo: ${future}`}
        isDisabled={future === undefined}
        onPress={doAgain}
      >
        <Redo2 size={18} />
      </SignButton>
      <CommandFinder base={base} />
      <LightMenu />
      <CountingSwitch />
    </Head>
  );
}

/** What keeps the show from being saved, and what can be done. */
function SaveNotice() {
  const show = useShow();
  const navigate = useNavigate();
  const save = useApp((s) => s.open?.save ?? 'saved');
  if (save === 'conflict')
    return (
      <Notice role="alert">
        Another tab saved this show while you were editing here. Choose one of the two; the other is not thrown away:
        <Button onPress={() => void takeSaved()}>Use what was saved there (undo brings mine back)</Button>
        <MainButton onPress={() => void keepAsCopy().then((copy) => copy && navigate(`/show/${copy}`))}>
          Keep mine as a copy
        </MainButton>
      </Notice>
    );
  if (save === 'gone')
    return (
      <Notice role="alert">
        This show is no longer in this browser’s storage: it was deleted there, or the storage was cleared. Recordings
        and versions went with it; what is open here is whole.
        <MainButton onPress={() => void saveAnew()}>Save it again</MainButton>
        <Button onPress={() => void exportShow(show, true)}>Export show</Button>
      </Notice>
    );
  if (save === 'failed')
    return (
      <Notice role="alert">
        The browser stores nothing: it may be out of room, or not allowed to. The show is kept on this page only, and
        saving is tried again; export it before you leave.
        <MainButton onPress={() => void exportShow(show, true)}>Export show</MainButton>
      </Notice>
    );
  return null;
}

/** Songs that could not be read: their data is there to be exported, until somebody deletes it. */
function Damaged() {
  const count = useApp((s) => s.damaged.length);
  if (count === 0) return null;
  return (
    <Notice role="alert">
      {count === 1 ? '1 song is' : `${count} songs are`} damaged in this browser's storage and left out. A version or a
      file that you exported may still have {count === 1 ? 'it' : 'them'} whole.
      <Button onPress={exportDamaged}>Export the damaged data</Button>
      <Button onPress={() => void deleteDamaged()}>Delete it</Button>
    </Notice>
  );
}

/** What the view at an address is called. */
function viewName(pathname: string, base: string): string {
  const [first = ''] = pathname.slice(base.length + 1).split('/');
  return VIEWS.find(({ path }) => path === first)?.name ?? VIEWS[0].name;
}

/** The view by itself: what the frame around it hears of edits does not draw it again. */
const View = memo(function View() {
  const { pathname } = useLocation();
  return (
    <ViewBoundary place={pathname}>
      <Suspense>
        <Outlet />
      </Suspense>
    </ViewBoundary>
  );
});

/** A shortcut that leaves typing alone. */
function keyed(run: () => void): (event: KeyboardEvent) => void {
  return (event) => {
    const { target } = event;
    if (takesText(target) && !event.altKey) return;
    event.preventDefault();
    run();
  };
}
