import { create } from 'zustand';
import { shelf } from '../persistence/db';
import { keepDevice } from '../persistence/device';

/** Places whose rarer fields somebody opened on this computer: they stay open. */
export const useOpened = create<{ readonly places: readonly string[] }>(() => ({ places: [] }));

export function setOpened(place: string, open: boolean): void {
  const { places } = useOpened.getState();
  if (places.includes(place) === open) return;
  const next = open ? [...places, place] : places.filter((p) => p !== place);
  useOpened.setState({ places: next });
  void keepDevice(shelf, 'opened', next).catch(() => undefined);
}
