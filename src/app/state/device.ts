import { shelf } from '../persistence/db';
import { keepDevice, loadDevice } from '../persistence/device';
import { useLateness } from './lateness';
import { takeMix } from './mix';
import { useOpened } from './opened';
import { useApp, type Counting, type Light } from './store';

/** Takes up what this computer remembers. */
export async function readDevice(): Promise<void> {
  try {
    const { counting, light, routes, earRoutes, delay, stageOnly, opened, portTimes } = await loadDevice(shelf);
    if (opened) useOpened.setState({ places: opened });
    if (portTimes) useLateness.setState({ ports: portTimes });
    if (stageOnly) {
      // A show that is gone locks nobody in.
      const there = await shelf.shows.bulkGet(stageOnly);
      useApp.setState({ stageOnly: stageOnly.filter((_, i) => there[i] !== undefined) });
    }
    takeMix({
      ...(routes ? { routes } : {}),
      ...(earRoutes ? { earRoutes } : {}),
      ...(delay === undefined ? {} : { delay }),
    });
    if (light) shine(light);
    if (counting) useApp.setState({ counting });
  } catch {
    // A browser without storage says so where something is to be saved.
  }
}

/** Opens a show for a stand-in player, who sees the stage and changes nothing; or unlocks it again. */
export function setStageOnly(showId: string, only: boolean): void {
  const others = useApp.getState().stageOnly.filter((id) => id !== showId);
  const stageOnly = only ? [...others, showId] : others;
  useApp.setState({ stageOnly });
  void keepDevice(shelf, 'stageOnly', [...stageOnly]).catch(() => undefined);
}

/** The page takes its colours from the light that it is told. */
function shine(light: Light): void {
  document.documentElement.dataset['light'] = light;
  useApp.setState({ light });
}

export function setLight(light: Light): void {
  shine(light);
  void keepDevice(shelf, 'light', light).catch(() => undefined);
}

export function setCounting(counting: Counting): void {
  useApp.setState({ counting });
  void keepDevice(shelf, 'counting', counting).catch(() => undefined);
}
