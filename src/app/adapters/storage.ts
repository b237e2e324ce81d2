/** How much the browser stores for this application, and whether it may clear that away. */
export interface StorageState {
  /** Bytes; null where the browser does not say. */
  readonly used: number | null;
  readonly left: number | null;
  /** It is not cleared away unless somebody asks for it. */
  readonly kept: boolean;
}

export async function storageState(): Promise<StorageState> {
  const { storage } = navigator as { readonly storage?: StorageManager };
  const told = await storage?.estimate().catch(() => undefined);
  const { usage, quota } = told ?? {};
  return {
    used: usage ?? null,
    left: usage === undefined || quota === undefined ? null : Math.max(0, quota - usage),
    kept: (await storage?.persisted().catch(() => false)) ?? false,
  };
}

/** Asks that nothing is cleared away when the disk is full. */
export const askToKeep = async (): Promise<boolean> => (await navigator.storage?.persist().catch(() => false)) ?? false;
