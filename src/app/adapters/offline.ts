/// <reference types="vite-plugin-pwa/client" />
import { registerSW } from 'virtual:pwa-register';
import { create } from 'zustand';

/** Whether the application is kept for times without its server, and whether a newer one waits. */
export interface Offline {
  readonly kept: boolean;
  /** Puts the newer version in the place of this one, and loads the page anew; null while there is none. */
  readonly renew: (() => Promise<void>) | null;
}

export const useOffline = create<Offline>(() => ({ kept: false, renew: null }));

/** A show may be open for a whole evening: so often it is asked whether there is a newer version. */
const ASK_EVERY = 60 * 60 * 1000;

/** Has the browser keep the application. A browser that cannot, or a page that is not from a safe origin, goes without. */
export function keepOffline(): void {
  if (!('serviceWorker' in navigator)) return;
  const renew = registerSW({
    onOfflineReady: () => useOffline.setState({ kept: true }),
    onNeedRefresh: () => useOffline.setState({ renew: () => renew(true) }),
    onRegisteredSW: (_, registration) => {
      if (registration?.active) useOffline.setState({ kept: true });
      if (registration) setInterval(() => void registration.update().catch(() => undefined), ASK_EVERY);
    },
  });
}
