import { create } from 'zustand';

/** Whether the keys of the view are in sight. */
export const useKeysOpen = create<{ readonly open: boolean }>(() => ({ open: false }));

export const setKeysOpen = (open: boolean): void => useKeysOpen.setState({ open });
export const openKeys = (): void => setKeysOpen(true);
