import type { Shelf } from './db';
import { deviceSchema, type Device } from './rows';

/** What this computer remembers; a setting that is missing or damaged is left out. */
export async function loadDevice(shelf: Shelf): Promise<Partial<Device>> {
  const rows = await shelf.device.toArray();
  const read = deviceSchema.partial().safeParse(Object.fromEntries(rows.map((r) => [r.key, r.value])));
  const counting = read.success ? read.data.counting : undefined;
  return counting === undefined ? {} : { counting };
}

export const keepDevice = <K extends keyof Device>(shelf: Shelf, key: K, value: Device[K]): Promise<unknown> =>
  shelf.device.put({ key, value });
