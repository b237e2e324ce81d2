import { Suspense, lazy, useEffect, useRef } from 'react';
import { RouterProvider as AriaRouter } from 'react-aria-components';
import { BrowserRouter, Navigate, Route, Routes, useHref, useLocation, useNavigate } from 'react-router';
import { SWRConfig } from 'swr';
import { GlobalStyle } from './theme/GlobalStyle';
import { ViewBoundary } from './shell/ViewBoundary';
import { ShelfScreen } from './screens/ShelfScreen';
import { useApp } from './state/store';

const parts = {
  Shell: () => import('./shell/Shell'),
  DemoScreen: () => import('./screens/DemoScreen'),
  SetScreen: () => import('./screens/SetScreen'),
  StageScreen: () => import('./screens/StageScreen'),
  FollowScreen: () => import('./screens/FollowScreen'),
  WatchScreen: () => import('./screens/WatchScreen'),
  MapScreen: () => import('./screens/MapScreen'),
  HouseScreen: () => import('./screens/HouseScreen'),
  RigScreen: () => import('./screens/RigScreen'),
  TonesScreen: () => import('./screens/TonesScreen'),
  MovesScreen: () => import('./screens/MovesScreen'),
  ChartScreen: () => import('./screens/ChartScreen'),
  DryRunScreen: () => import('./screens/DryRunScreen'),
  FeetScreen: () => import('./screens/FeetScreen'),
  FilesScreen: () => import('./screens/FilesScreen'),
};

const Shell = lazy(() => parts.Shell().then((m) => ({ default: m.Shell })));
const DemoScreen = lazy(() => parts.DemoScreen().then((m) => ({ default: m.DemoScreen })));
const SetScreen = lazy(() => parts.SetScreen().then((m) => ({ default: m.SetScreen })));
const StageScreen = lazy(() => parts.StageScreen().then((m) => ({ default: m.StageScreen })));
const FollowScreen = lazy(() => parts.FollowScreen().then((m) => ({ default: m.FollowScreen })));
const WatchScreen = lazy(() => parts.WatchScreen().then((m) => ({ default: m.WatchScreen })));
const MapScreen = lazy(() => parts.MapScreen().then((m) => ({ default: m.MapScreen })));
const HouseScreen = lazy(() => parts.HouseScreen().then((m) => ({ default: m.HouseScreen })));
const RigScreen = lazy(() => parts.RigScreen().then((m) => ({ default: m.RigScreen })));
const TonesScreen = lazy(() => parts.TonesScreen().then((m) => ({ default: m.TonesScreen })));
const MovesScreen = lazy(() => parts.MovesScreen().then((m) => ({ default: m.MovesScreen })));
const ChartScreen = lazy(() => parts.ChartScreen().then((m) => ({ default: m.ChartScreen })));
const FeetScreen = lazy(() => parts.FeetScreen().then((m) => ({ default: m.FeetScreen })));
const FilesScreen = lazy(() => parts.FilesScreen().then((m) => ({ default: m.FilesScreen })));
const DryRunScreen = lazy(() => parts.DryRunScreen().then((m) => ({ default: m.DryRunScreen })));

/** Once the first view stands, the others are fetched too: they are there before they are opened, also when the server is gone by then. */
function fetchTheRest(): void {
  for (const part of Object.values(parts)) part().catch(() => undefined);
  import('./adapters/readFile').catch(() => undefined);
  import('../core/demo').catch(() => undefined);
  import('../core/library').catch(() => undefined);
  import('./adapters/offline').then((m) => m.keepOffline()).catch(() => undefined);
}

/** Milliseconds that the first view has for itself. */
const FETCH_AFTER = 400;

/** A show that was interrupted is the first thing that one sees: on stage, from wherever the page was opened. */
function useInterrupted(): void {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const opened = useRef(pathname);
  useEffect(() => {
    const look = async (): Promise<void> => {
      const [{ recover }, { useJournal }] = await Promise.all([import('./state/recover'), import('./state/journal')]);
      await recover();
      const { interrupted } = useJournal.getState();
      if (!interrupted || opened.current.startsWith('/watch')) return;
      const base = `/show/${interrupted.showId}`;
      // Who rehearses is left where they are, and asked there.
      const isHere = interrupted.night === null && opened.current.startsWith(base);
      if (!isHere && (interrupted.night !== null || opened.current === '/')) {
        void navigate(`${base}/stage`, { replace: true });
      }
    };
    void look().catch(() => undefined);
  }, [navigate]);
}

/** A computer that is open for a stand-in player has that stage and nothing else, whatever address is typed. */
function useStageOnly(): string | null {
  const { pathname } = useLocation();
  const [only] = useApp((s) => s.stageOnly);
  if (only === undefined || pathname.startsWith('/watch') || /^\/show\/[^/]+\/stage/.test(pathname)) return null;
  return `/show/${only}/stage`;
}

function Views() {
  const navigate = useNavigate();
  const away = useStageOnly();
  useInterrupted();
  useEffect(() => {
    const wait = setTimeout(() => requestIdleCallback(fetchTheRest), FETCH_AFTER);
    return () => clearTimeout(wait);
  }, []);
  return (
    <AriaRouter navigate={(to) => void navigate(to)} useHref={useHref}>
      {away !== null && <Navigate to={away} replace />}
      <Suspense>
        <Routes>
          <Route path="/" element={<ShelfScreen />} />
          <Route path="/demo" element={<DemoScreen />} />
          <Route path="/show/:showId/stage/:playerId?" element={<StageScreen />} />
          <Route path="/watch/:playerId?" element={<WatchScreen />} />
          <Route path="/follow" element={<FollowScreen />} />
          <Route path="/show/:showId" element={<Shell />}>
            <Route index element={<Navigate to="set" replace />} />
            <Route path="set/:part?" element={<SetScreen />} />
            <Route path="rig/:part?" element={<RigScreen />} />
            <Route path="map/:unitId?/:part?" element={<MapScreen />} />
            <Route path="map/house" element={<HouseScreen />} />
            <Route path="tones/moves" element={<MovesScreen />} />
            <Route path="tones/:toneId?" element={<TonesScreen />} />
            <Route path="chart/:songId?" element={<ChartScreen />} />
            <Route path="dry-run/:songId?" element={<DryRunScreen />} />
            <Route path="feet/:unitId?/:part?" element={<FeetScreen />} />
            <Route path="files/:part?" element={<FilesScreen />} />
          </Route>
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Suspense>
    </AriaRouter>
  );
}

export function App() {
  return (
    <SWRConfig value={{ revalidateOnFocus: false }}>
      <GlobalStyle />
      <BrowserRouter>
        <ViewBoundary place="">
          <Views />
        </ViewBoundary>
      </BrowserRouter>
    </SWRConfig>
  );
}
