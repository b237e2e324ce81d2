import { create } from 'zustand';
import { storageState } from '../adapters/storage';
import { shelf } from '../persistence/db';
import { keepDevice, loadDevice } from '../persistence/device';

const DAY = 24 * 60 * 60 * 1000;
/** A browser that gives no word keeps what it stores some weeks at the least; a week before is soon enough, and not a nuisance. */
const REMIND_AFTER = 7 * DAY;

/** Days since the show went out as a file, where it is time for it again; null where it is not. */
export const useExportDue = create<{ readonly days: number | null }>(() => ({ days: null }));

/** Days since the last export, where the browser may clear the storage and that is long ago. */
export const exportDue = (last: number, now: number, kept: boolean): number | null =>
  kept || now - last < REMIND_AFTER ? null : Math.floor((now - last) / DAY);

const remember = async (showId: string, at: number): Promise<void> => {
  const all = (await loadDevice(shelf)).exported ?? {};
  await keepDevice(shelf, 'exported', { ...all, [showId]: at });
};

/** A show that is opened: whether it is time to export it. The first time counts as if it had been. */
export async function followExports(showId: string, now: number): Promise<void> {
  useExportDue.setState({ days: null });
  try {
    const last = (await loadDevice(shelf)).exported?.[showId];
    if (last === undefined) await remember(showId, now);
    else useExportDue.setState({ days: exportDue(last, now, (await storageState()).kept) });
  } catch {
    // A browser that stores nothing says so where something is to be saved.
  }
}

export async function noteExport(showId: string, now: number): Promise<void> {
  useExportDue.setState({ days: null });
  await remember(showId, now).catch(() => undefined);
}

/** Not now: it is asked again when the show is opened again. */
export const putOffExport = (): void => useExportDue.setState({ days: null });
