import type { Shelf } from './db';
import { deviceSchema, type Device } from './rows';

/** What this computer remembers; a setting that is missing or damaged is left out. */
export async function loadDevice(shelf: Shelf): Promise<Partial<Device>> {
  const rows = await shelf.device.toArray();
  const read = rows.flatMap(({ key, value }) => {
    const shape = deviceSchema.shape[key as keyof Device];
    const parsed = shape?.safeParse(value);
    return parsed?.success ? [[key, parsed.data] as const] : [];
  });
  return Object.fromEntries(read);
}

export const keepDevice = <K extends keyof Device>(shelf: Shelf, key: K, value: Device[K]): Promise<unknown> =>
  shelf.device.put({ key, value });
