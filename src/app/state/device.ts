import { shelf } from '../persistence/db';
import { keepDevice, loadDevice } from '../persistence/device';
import { takeMix } from './mix';
import { useApp, type Counting } from './store';

/** Takes up what this computer remembers. */
export async function readDevice(): Promise<void> {
  try {
    const { counting, routes, delay } = await loadDevice(shelf);
    takeMix({ ...(routes ? { routes } : {}), ...(delay === undefined ? {} : { delay }) });
    if (counting) useApp.setState({ counting });
  } catch {
    // A browser without storage says so where something is to be saved.
  }
}

export function setCounting(counting: Counting): void {
  useApp.setState({ counting });
  void keepDevice(shelf, 'counting', counting).catch(() => undefined);
}
