import { Suspense, lazy, useEffect } from 'react';
import { RouterProvider as AriaRouter } from 'react-aria-components';
import { BrowserRouter, Navigate, Route, Routes, useHref, useNavigate } from 'react-router';
import { SWRConfig } from 'swr';
import { GlobalStyle } from './theme/GlobalStyle';
import { Shell } from './components/Shell';
import { ViewBoundary } from './components/ViewBoundary';
import { ShelfScreen } from './screens/ShelfScreen';
import { DemoScreen } from './screens/DemoScreen';
import { saveOnLeave } from './state/desk';

const BookScreen = lazy(() => import('./screens/BookScreen').then((m) => ({ default: m.BookScreen })));
const MapScreen = lazy(() => import('./screens/MapScreen').then((m) => ({ default: m.MapScreen })));
const HouseScreen = lazy(() => import('./screens/HouseScreen').then((m) => ({ default: m.HouseScreen })));
const RigScreen = lazy(() => import('./screens/RigScreen').then((m) => ({ default: m.RigScreen })));
const TonesScreen = lazy(() => import('./screens/TonesScreen').then((m) => ({ default: m.TonesScreen })));
const MovesScreen = lazy(() => import('./screens/MovesScreen').then((m) => ({ default: m.MovesScreen })));
const ChartScreen = lazy(() => import('./screens/ChartScreen').then((m) => ({ default: m.ChartScreen })));
const DryRunScreen = lazy(() => import('./screens/DryRunScreen').then((m) => ({ default: m.DryRunScreen })));

function Views() {
  const navigate = useNavigate();
  useEffect(saveOnLeave, []);
  return (
    <AriaRouter navigate={(to) => void navigate(to)} useHref={useHref}>
      <Suspense>
        <Routes>
          <Route path="/" element={<ShelfScreen />} />
          <Route path="/demo" element={<DemoScreen />} />
          <Route path="/show/:showId" element={<Shell />}>
            <Route index element={<BookScreen />} />
            <Route path="rig/:part?" element={<RigScreen />} />
            <Route path="map/:unitId?/:part?" element={<MapScreen />} />
            <Route path="map/house" element={<HouseScreen />} />
            <Route path="tones/moves" element={<MovesScreen />} />
            <Route path="tones/:toneId?" element={<TonesScreen />} />
            <Route path="chart/:songId?" element={<ChartScreen />} />
            <Route path="dry-run/:songId?" element={<DryRunScreen />} />
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
